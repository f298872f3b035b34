import {
  LESSON_PARTS,
  labelOf,
  lessonFile,
  lessonState,
  taughtFor,
  topicsOwed,
  type CareTopic,
  type Eye,
  type HealthState,
  type IsoInstant,
  type LessonPart,
  type LessonState,
  type Missing,
} from '@/core';
import type { VisitRecord } from '../../shell/visitData';

export type LessonView = LessonState<VisitRecord['lessons'][number]>;

/**
 * The lesson of this visit as it stands; null before it starts.
 * @param careProducts none until the practice's library has come
 */
export function lessonView(
  record: VisitRecord,
  findings: HealthState['findings'],
  careProducts: VisitRecord['careProducts'],
  at: IsoInstant,
): LessonView | null {
  const { visit, health, session } = record;
  const lesson = record.lessons.filter((l) => l.visitId === visit.id).at(-1);
  if (!lesson) return null;
  const file = lessonFile({
    visitId: visit.id,
    supply: record,
    health,
    findings,
    careProducts,
    settings: session.settings,
    label: labelOf({ onEye: record.facts.onEye, prescriptions: record.prescriptions, lenses: record.lenses }),
  });
  return lessonState(lesson, file, { today: session.today, timeZone: session.practice.timeZone, at });
}

/** Topics that a change since the last sign-off asks for; none of somebody who was never signed off. */
export function owedHere(record: VisitRecord, careProducts: VisitRecord['careProducts'], singleUse: boolean): readonly CareTopic[] {
  const { visit, health } = record;
  const { now, system } = taughtFor({ visitId: visit.id, supply: record, health, careProducts }, singleUse);
  return topicsOwed(
    record.lessons.filter((l) => l.visitId !== visit.id || l.signOffId !== null),
    now,
    system,
  );
}

/** The eye whose turn it is: right first, always; then the one with more to do. */
export function eyeInTurn(view: LessonView): Eye {
  const missing = (eye: Eye): number => view.gate.missing.filter((m) => (m.kind === 'moves' || m.kind === 'today') && m.eye === eye).length;
  if (view.lesson.eyes.includes('right') && missing('right') > 0) return 'right';
  return view.lesson.eyes.includes('left') ? 'left' : 'right';
}

/** The part of the lesson that is due: care first, and once the hands begin whatever the eye in turn needs. */
export function partInTurn(view: LessonView, turn: Eye): LessonPart {
  const { plan, gate, topics, attempts, lesson } = view;
  if (gate.open || lesson.eyes.length === 0) return gate.open ? 'signOff' : 'care';
  const told = (part: LessonPart): boolean => (plan.parts.find((p) => p.part === part)?.topics ?? []).every((topic) => topics.some((t) => t.topic === topic));
  if (attempts.length === 0) return told('care') ? (told('wayOut') ? 'on' : 'wayOut') : 'care';
  const moves = gate.missing.filter((m) => m.kind === 'moves' || m.kind === 'today');
  if (moves.length === 0) return LESSON_PARTS.find((part) => !told(part)) ?? 'signOff';
  if (view.next[turn] === 'on') return 'on';
  return told('moveAndFind') ? 'off' : 'moveAndFind';
}

type MissingMove = Extract<Missing, { kind: 'moves' | 'today' }>;

/** What still locks the sign-off, short: "once today" says nothing where that move is wanted anyway. */
export function lockList(missing: readonly Missing[]): {
  readonly moves: readonly MissingMove[];
  readonly sights: readonly Eye[];
  readonly topics: number;
  readonly again: number;
  readonly care: boolean;
} {
  const moves = missing.filter((m): m is MissingMove => m.kind === 'moves' || m.kind === 'today');
  const wanted = (m: MissingMove): boolean => moves.some((o) => o.kind === 'moves' && o.eye === m.eye && o.move === m.move);
  return {
    moves: moves.filter((m) => m.kind === 'moves' || !wanted(m)),
    sights: missing.flatMap((m) => (m.kind === 'sight' ? [m.eye] : [])),
    topics: missing.filter((m) => m.kind === 'topic').length,
    again: missing.filter((m) => m.kind === 'again').length,
    care: missing.some((m) => m.kind === 'care'),
  };
}
