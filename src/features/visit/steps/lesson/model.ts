import { lessonState, type Eye, type LessonState, type Missing } from '@/core';
import type { VisitRecord } from '../../shell/visitData';

export type LessonView = LessonState<VisitRecord['lessons'][number]>;

/** The lesson of this visit as it stands; null before it starts. */
export function lessonView(record: VisitRecord): LessonView | null {
  const { visit, lessons, attempts, topics, health, session } = record;
  const lesson = lessons.filter((l) => l.visitId === visit.id).at(-1);
  if (!lesson) return null;
  const wear = health.decisions.findLast((d) => d.visitId === visit.id)?.chosen.wear ?? null;
  return lessonState(lesson, { lessons, attempts, topics, wear, answers: health.answers }, { today: session.today, timeZone: session.practice.timeZone });
}

/** The eye whose turn it is: right first, always; then the one with more to do. */
export function eyeInTurn(view: LessonView): Eye {
  const missing = (eye: Eye): number => view.gate.missing.filter((m) => m.kind !== 'topic' && m.eye === eye).length;
  if (view.lesson.eyes.includes('right') && missing('right') > 0) return 'right';
  return view.lesson.eyes.includes('left') ? 'left' : 'right';
}

type MissingMove = Exclude<Missing, { kind: 'topic' }>;

/** What still locks the sign-off, short: "once today" says nothing where that move is wanted anyway. */
export function lockList(missing: readonly Missing[]): { readonly moves: readonly MissingMove[]; readonly topics: number } {
  const moves = missing.filter((m): m is MissingMove => m.kind !== 'topic');
  const wanted = (m: MissingMove): boolean => moves.some((o) => o.kind === 'moves' && o.eye === m.eye && o.move === m.move);
  return { moves: moves.filter((m) => m.kind === 'moves' || !wanted(m)), topics: missing.length - moves.length };
}
