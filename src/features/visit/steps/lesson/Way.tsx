'use client';
import Link from 'next/link';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { DEXTERITIES, EYES, OFF_TECHNIQUES, ON_TECHNIQUES, type LessonWay, type OffTechnique, type OnTechnique } from '@/core';
import { SKIN_TONES, TONES } from '@/ui/drawing/ink';
import { Segment } from '@/ui/Segment';
import type { LessonView } from './model';
import type { Lesson } from './useLesson';

interface Of {
  readonly lesson: Lesson;
  readonly view: LessonView;
}
const PLANNED = 'planned';

/** How this wearer is taught: one press changes it, and is kept. */
export function Way({ lesson, view }: Of) {
  const t = useTranslations('lesson');
  const [open, setOpen] = useState(false);
  const { way, plan, lesson: row } = view;
  const change = (part: Partial<LessonWay>): void => lesson.keepWay({ ...way, ...part });
  const summary = [t(`hands.${way.hand}`), t(`techniques.${view.technique.on}`), t(`techniques.${view.technique.off}`)].join(', ');
  return (
    <div className="px-5 py-2 border-b border-rule flex flex-wrap gap-x-6 gap-y-2 items-center" data-testid="lesson-way">
      {row.handler ? <p>{t('handlerLine', { name: row.handler })}</p> : null}
      <p className="label">{t('wayLine', { way: summary, because: t(`because.${plan.off.because}`) })}</p>
      {lesson.running ? (
        <Link className="btn btn-quiet" href="/lessons" prefetch={false}>
          {t('lessonsNow')}
        </Link>
      ) : null}
      {lesson.running ? (
        <button type="button" className="btn btn-quiet" aria-expanded={open} onClick={() => setOpen(!open)}>
          {t('changeWay')}
        </button>
      ) : null}
      {open && lesson.running ? (
        <>
          <Segment
            label={t('hand')}
            values={EYES}
            value={way.hand}
            word={(hand) => t(`hands.${hand}`)}
            disabled={lesson.busy}
            onChoose={(hand) => change({ hand })}
          />
          <Segment
            label={t('dexterity')}
            values={DEXTERITIES}
            value={way.dexterity}
            word={(dexterity) => t(`dexterities.${dexterity}`)}
            disabled={lesson.busy}
            onChoose={(dexterity) => change({ dexterity })}
          />
          <Segment
            label={t('skinTone')}
            values={SKIN_TONES}
            value={way.skinTone}
            word={(tone) => (
              <svg width="22" height="22" aria-label={t('tone', { tone })} role="img">
                <rect width="22" height="22" fill={TONES[tone].skin} />
              </svg>
            )}
            disabled={lesson.busy}
            onChoose={(skinTone) => change({ skinTone })}
          />
          <Segment<OnTechnique | typeof PLANNED>
            label={t('onTechnique')}
            kind="wrapping"
            values={[PLANNED, ...ON_TECHNIQUES]}
            value={way.onTechnique ?? PLANNED}
            word={(one) => (one === PLANNED ? t('asPlanned', { technique: t(`techniques.${plan.on.technique}`) }) : t(`techniques.${one}`))}
            disabled={lesson.busy}
            onChoose={(one) => change({ onTechnique: one === PLANNED ? null : one })}
          />
          <Segment<OffTechnique | typeof PLANNED>
            label={t('offTechnique')}
            kind="wrapping"
            values={[PLANNED, ...OFF_TECHNIQUES]}
            value={way.offTechnique ?? PLANNED}
            word={(one) => (one === PLANNED ? t('asPlanned', { technique: t(`techniques.${plan.off.technique}`) }) : t(`techniques.${one}`))}
            disabled={lesson.busy}
            onChoose={(one) => change({ offTechnique: one === PLANNED ? null : one })}
          />
        </>
      ) : null}
    </div>
  );
}
