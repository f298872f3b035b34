'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, formatAcuity, parseAcuity, type Eye } from '@/core';
import { Button } from '@/ui/Button';
import { EyeBadge, Stated } from '@/ui/marks';
import { AcuityField } from '../../../common/AcuityField';
import { useEyeWords } from '../../../common/eyeWords';
import { problemAt } from '../../../common/words';
import { Correctable } from '../../shell/Correct';
import { useVisit } from '../../shell/VisitProvider';
import type { LessonView } from './model';
import type { Lesson } from './useLesson';

interface Of {
  readonly lesson: Lesson;
  readonly view: LessonView;
}
/** Two lines of a chart, logMAR: common practice. */
const TWO_LINES = 0.2;

/** Acuity of each eye through lenses that the wearer put on. */
export function Sights({ lesson, view }: Of) {
  const t = useTranslations('lesson');
  return (
    <section className="pt-3 mt-3 border-t border-rule-2" data-testid="lesson-sight">
      <h2>{t('sight')}</h2>
      <p className="label mb-1">{t('sightHint')}</p>
      {EYES.filter((eye) => view.lesson.eyes.includes(eye)).map((eye) => (
        <Sight key={eye} eye={eye} lesson={lesson} view={view} />
      ))}
    </section>
  );
}

function Sight({ eye, lesson, view }: Of & { readonly eye: Eye }) {
  const t = useTranslations('lesson');
  const eyeWords = useEyeWords();
  const { record, run, problem, eye: stateOf } = useVisit();
  const [text, setText] = useState('');
  const { acuity } = record.session.settings;
  const read = parseAcuity(text, acuity);
  const kept = view.sights[eye];
  const chain = record.lessonSights.find((c) => c.current?.id === kept?.id);
  const best = record.bestBefore[eye];
  const behind = kept && best !== null ? kept.acuityLogMar - best : 0;
  const short = behind >= TWO_LINES - 0.001;
  // Less at distance is what an eye that is set for near sees: its fellow tells whether the two were swapped.
  const setNear = stateOf(eye).aim.plus > 0;
  const on = view.next[eye] === 'off' && view.putOn.includes(eye);
  const keep = async (): Promise<void> => {
    if (!read.ok) return;
    const form = { lessonId: view.lesson.id, eye, acuity: { logMar: read.value, typed: text.trim() } };
    const done = await run('recordLessonSight', form, t('sightLogged', { eye: eyeWords.short(eye) }));
    if (done?.ok) setText('');
  };
  return (
    <div className="flex gap-3 items-center py-1 flex-wrap">
      <EyeBadge eye={eye} />
      {kept && chain ? (
        <>
          <Stated state={short && !setNear ? 'watch' : 'ok'}>{kept.acuityTyped}</Stated>
          {short && setNear ? <span>{t('sightNearEye')}</span> : null}
          {short && !setNear && best !== null ? <span>{t('sightWorse', { lines: Math.round(behind * 10), best: formatAcuity(best, acuity) })}</span> : null}
          <Correctable kind="lessonSight" chain={chain} show={(row) => row.acuityTyped} textOf={(row) => row.acuityTyped} />
        </>
      ) : null}
      {lesson.running && on ? (
        <form
          className="flex gap-2 items-center"
          onSubmit={(event) => {
            event.preventDefault();
            void keep();
          }}
        >
          <AcuityField
            id={`lesson-sight-${eye}`}
            label={`${t('sight')}: ${eyeWords.name(eye)}`}
            text={text}
            onText={setText}
            disabled={lesson.busy}
            problem={problemAt(problem, 'acuity', 'typed')}
          />
          <Button type="submit" disabled={lesson.busy || !read.ok}>
            {t('sightKeep')}
          </Button>
        </form>
      ) : kept ? null : (
        <span className="label">{t('sightWait', { eye: eyeWords.short(eye) })}</span>
      )}
    </div>
  );
}
