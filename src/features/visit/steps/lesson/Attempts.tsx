'use client';
import { useTranslations } from 'use-intl';
import { MOVES_NEEDED, type Eye, type Move } from '@/core';
import { formatTime } from '@/i18n/format';
import { useWordsOf } from '@/i18n/wordsOf';
import { KeyCap, StateMark } from '@/ui/marks';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { Correctable } from '../../shell/Correct';
import { useVisit } from '../../shell/VisitProvider';
import { Misses } from './Misses';
import type { LessonView } from './model';
import type { Lesson } from './useLesson';

/** Counts of each eye, whose turn it is, and every attempt at its time. */
export function Attempts({ lesson, view }: { readonly lesson: Lesson; readonly view: LessonView }) {
  const t = useTranslations('lesson');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const tried = [...view.attempts].reverse();
  return (
    <>
      <Spine label={t('tries')} width="slim">
        <SpineHead words={eyeWords.heads} label={t('needed', { count: MOVES_NEEDED })} />
        {(['on', 'off'] as const).map((move) => (
          <SpineRow
            key={move}
            label={t(`move.${move}`)}
            right={<Count view={view} eye="right" move={move} />}
            left={<Count view={view} eye="left" move={move} />}
          />
        ))}
        {lesson.running ? (
          <SpineRow chosen label={t('now')} right={<Turn lesson={lesson} view={view} eye="right" />} left={<Turn lesson={lesson} view={view} eye="left" />} />
        ) : null}
      </Spine>
      {lesson.running ? <Misses lesson={lesson} view={view} /> : null}
      {tried.length === 0 ? null : (
        <Spine label={t('log')} width="slim">
          {tried.map((a) => (
            <SpineRow
              key={a.id}
              label={<span className="label">{formatTime(a.observedAt, record.session.practice.timeZone)}</span>}
              right={a.eye === 'right' ? <Try id={a.rootId} /> : null}
              left={a.eye === 'left' ? <Try id={a.rootId} /> : null}
            />
          ))}
        </Spine>
      )}
    </>
  );
}

function Count({ view, eye, move }: { readonly view: LessonView; readonly eye: Eye; readonly move: Move }) {
  const t = useTranslations('lesson');
  if (!view.lesson.eyes.includes(eye)) return <span className="label">{t('notTaught')}</span>;
  const done = view.gate.done[eye][move];
  return (
    <span className={`flex items-center gap-2 ${eye === 'left' ? 'flex-row' : 'flex-row-reverse'}`} data-testid={`count-${eye}-${move}`} data-done={done}>
      {Array.from({ length: MOVES_NEEDED }, (_, i) => (
        <span key={i} className="check" data-done={i < done || undefined}>
          {i < done ? <StateMark state="ok" /> : null}
        </span>
      ))}
      <span className="label">{t('ofNeeded', { done, needed: MOVES_NEEDED })}</span>
    </span>
  );
}

function Turn({ lesson, view, eye }: { readonly lesson: Lesson; readonly view: LessonView; readonly eye: Eye }) {
  const t = useTranslations('lesson');
  const eyeWords = useEyeWords();
  if (!view.lesson.eyes.includes(eye)) return null;
  return lesson.turn === eye ? (
    <span className="value">{t(`move.${view.next[eye]}`)}</span>
  ) : (
    <button type="button" className="btn btn-quiet" onClick={() => lesson.choose(eye)}>
      {t('thisEye', { eye: eyeWords.short(eye) })} <KeyCap>{eyeWords.short(eye)}</KeyCap>
    </button>
  );
}

function Try({ id }: { readonly id: string }) {
  const t = useTranslations('lesson');
  const tOf = useWordsOf('lesson');
  const { record } = useVisit();
  const chain = record.attempts.find((c) => c.rootId === id);
  if (!chain?.current) return null;
  const a = chain.current;
  const word = a.worked
    ? a.unaided
      ? t(`move.${a.move}`)
      : t('withHelp', { move: t(`move.${a.move}`) })
    : t('missed', { move: t(`move.${a.move}`), why: tOf(`miss.${a.miss ?? 'fell'}`) });
  return (
    <span className="flex gap-3 items-center">
      <span className="stated">
        <StateMark state={a.worked ? 'ok' : 'miss'} /> {word}
      </span>
      <Correctable kind="lessonAttempt" chain={chain} show={() => word} />
    </span>
  );
}
