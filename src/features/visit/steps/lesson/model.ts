import {
  careTopicsFor,
  dayIn,
  lessonGate,
  nextMove,
  lessonProgress,
  type Attempt,
  type Eye,
  type LessonGate,
  type Missing,
  type Move,
  type AttemptFact,
  type TopicFact,
} from '@/core';
import type { VisitRecord } from '../../shell/visitData';

export interface LessonView {
  readonly lesson: VisitRecord['lessons'][number];
  readonly attempts: readonly AttemptFact[];
  readonly topics: readonly TopicFact[];
  readonly mandatory: readonly string[];
  readonly gate: LessonGate;
  readonly next: Readonly<Record<Eye, Move>>;
}

/** The lesson of this visit as it stands; null before it starts. Counts and topics carry over from another day. */
export function lessonView(record: VisitRecord): LessonView | null {
  const lesson = record.lessons.filter((l) => l.visitId === record.visit.id).at(-1);
  if (!lesson) return null;
  const lastSigned = record.lessons.findLastIndex((l) => l.signOffId !== null && l.id !== lesson.id);
  const open = new Set(record.lessons.slice(lastSigned + 1).map((l) => l.id));
  const attempts = record.attempts.map((c) => c.current).filter((a): a is AttemptFact => a !== null && open.has(a.lessonId));
  const topics = record.topics.map((c) => c.current).filter((t): t is TopicFact => t !== null && open.has(t.lessonId));
  const wear = record.health.decisions.findLast((d) => d.visitId === record.visit.id)?.chosen.wear ?? null;
  const mandatory = careTopicsFor(lesson.singleUse, lessonProgress(wear, record.health.answers));
  const zone = record.session.practice.timeZone;
  const toAttempt = (a: AttemptFact): Attempt => ({
    eye: a.eye,
    move: a.move,
    worked: a.worked,
    unaided: a.unaided,
    today: dayIn(a.observedAt, zone) === record.session.today,
  });
  const gate = lessonGate({ attempts: attempts.map(toAttempt), topicsSaidBack: topics.map((t) => t.topic), eyes: lesson.eyes }, mandatory);
  const own = attempts.filter((a) => a.lessonId === lesson.id).map(toAttempt);
  const next = (eye: Eye): Move => nextMove(own, eye, lesson.onAtStart.includes(eye));
  return { lesson, attempts, topics, mandatory, gate, next: { right: next('right'), left: next('left') } };
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
