'use client';
import { ArrowLeft, ArrowRight } from 'lucide-react';
import { lazy, Suspense, useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { LESSON_PARTS, type LessonPart } from '@/core';
import { useKnownWords } from '@/i18n/wordsOf';
import { EyeBadge } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { Drawing } from '../../../common/lesson/Drawing';
import { pagesOf } from '../../../common/lesson/pages';
import { useKey } from '../../../common/keys';
import { useServer } from '../../../common/ServerProvider';
import { partInTurn, type LessonView } from './model';
import type { Lesson } from './useLesson';

const ScreenCode = lazy(() => import('./ScreenCode').then((m) => ({ default: m.ScreenCode })));

/** What is shown and said now: one drawing, three lines, paged by the teacher; it follows what is due until a part is chosen. */
export function DrawnPart({ lesson, view, peroxide }: { readonly lesson: Lesson; readonly view: LessonView; readonly peroxide: boolean }) {
  const t = useTranslations('lesson');
  const scenes = useKnownWords('scenes');
  const due = partInTurn(view, lesson.turn);
  const [at, setAt] = useState<{ readonly due: LessonPart; readonly part: LessonPart; readonly page: number } | null>(null);
  // What is due changed: the pages follow.
  const part = at?.due === due ? at.part : due;
  const pages = pagesOf(part, { on: view.technique.on, off: view.technique.off, singleUse: view.lesson.singleUse, peroxide });
  const page = Math.min(at?.due === due ? at.page : 0, pages.length - 1);
  const scene = pages[page] ?? 'theTable';
  const turnTo = (next: number): void => setAt({ due, part, page: Math.max(0, Math.min(pages.length - 1, next)) });
  useKey('ArrowLeft', () => turnTo(page - 1), [page, part, due]);
  useKey('ArrowRight', () => turnTo(page + 1), [page, part, due]);
  const { quietly } = useServer();
  const [opening, setOpening] = useState(false);
  const lessonId = view.lesson.id;
  const { hand, skinTone } = view.way;
  const { on: onTechnique, off: offTechnique } = view.technique;
  const { turn, running } = lesson;
  // The wearer's screen shows what stands here; nobody waits for it.
  useEffect(() => {
    if (running) void quietly('showLessonPage', { lessonId, part, page, eye: turn, hand, skinTone, onTechnique, offTechnique, peroxide });
  }, [quietly, running, lessonId, part, page, turn, hand, skinTone, onTechnique, offTechnique, peroxide]);
  const parts = LESSON_PARTS.filter((p) => p !== 'again' && p !== 'signOff' && view.plan.parts.some((planned) => planned.part === p));
  const handling = part === 'on' || part === 'off' || part === 'moveAndFind';
  return (
    <section className="p-5 border-r border-rule" aria-label={t(`part.${part}`)} data-testid="drawn-part" data-scene={scene}>
      <Segment
        label={t('parts')}
        kind="wrapping"
        values={parts}
        value={part}
        word={(p) => t(`part.${p}`)}
        onChoose={(chosen) => setAt({ due, part: chosen, page: 0 })}
      />
      <p className="flex gap-2 items-center pt-3 label">
        {handling ? <EyeBadge eye={lesson.turn} /> : null}
        {t('page', { page: page + 1, count: pages.length })}
        {part === 'on' || part === 'off' ? ` · ${t(`techniques.${view.technique[part]}`)}` : null}
      </p>
      <h2 className="power my-2">{scenes.of(`${scene}.title`)}</h2>
      <Drawing scene={scene} of={{ hand: view.way.hand, eye: lesson.turn, skinTone: view.way.skinTone, view: 'facing' }} />
      <ul className="py-2">{['1', '2', '3'].map((n) => (scenes.has(`${scene}.lines.${n}`) ? <li key={n}>{scenes.of(`${scene}.lines.${n}`)}</li> : null))}</ul>
      <p className="flex gap-2 items-center">
        <button type="button" className="btn touch" aria-label={t('pageBack')} disabled={page === 0} onClick={() => turnTo(page - 1)}>
          <ArrowLeft size={16} aria-hidden="true" />
        </button>
        <button type="button" className="btn touch" aria-label={t('pageOn')} disabled={page >= pages.length - 1} onClick={() => turnTo(page + 1)}>
          <ArrowRight size={16} aria-hidden="true" />
        </button>
        {handling ? <span className="note">{t('seen')}</span> : null}
        {running ? (
          <button type="button" className="btn btn-quiet ml-auto" onClick={() => setOpening(true)}>
            {t('screen')}
          </button>
        ) : null}
      </p>
      {opening ? (
        <Suspense fallback={null}>
          <ScreenCode lessonId={lessonId} onClose={() => setOpening(false)} />
        </Suspense>
      ) : null}
    </section>
  );
}
