import { EYES, PASSABLE, type Eye, type EyeState, type HealthState } from '@/core';
import type { VisitRecord } from '@/services/visitRecord';
import type { State } from '@/ui/marks';

/** The eight steps of a fit, in order; `slug` is its page. */
export const STEPS = [
  { id: 'history', slug: 'history' },
  { id: 'eyeHealth', slug: 'eye-health' },
  { id: 'power', slug: 'power' },
  { id: 'lens', slug: 'lens' },
  { id: 'onEye', slug: 'on-eye' },
  { id: 'final', slug: 'final' },
  { id: 'teach', slug: 'teach' },
  { id: 'supply', slug: 'supply' },
] as const;
export type StepId = (typeof STEPS)[number]['id'];
/** Steps that open whatever stops a lens: there it is said, seen and referred. */
export const NEVER_SHUT: readonly StepId[] = ['history', 'eyeHealth'];

/** What a step says of itself in the index: a code for its words, and its state. */
export interface StepAnswer {
  readonly code:
    | 'notYet'
    | 'notAsked'
    | 'asked'
    | 'alert'
    | 'notGraded'
    | 'clear'
    | 'watch'
    | 'stopWaits'
    | 'passed'
    | 'noLens'
    | 'shut'
    | 'both'
    | 'rightOnly'
    | 'leftOnly'
    | 'measureAgain'
    | 'read'
    | 'signed'
    | 'signedOff'
    | 'running'
    | 'ordered'
    | 'acknowledged'
    | 'checkAgain';
  readonly state: State | 'shut' | null;
  readonly number?: number;
}

const eyesAnswer = (right: boolean, left: boolean): StepAnswer => {
  if (right && left) return { code: 'both', state: 'ok' };
  if (right || left) return { code: right ? 'rightOnly' : 'leftOnly', state: 'ok' };
  return { code: 'notYet', state: null };
};

/** Later work is kept when an earlier step changes; it is marked to be checked again. */
export function stepAnswers(record: VisitRecord, eye: (eye: Eye) => EyeState, health: HealthState): Readonly<Record<StepId, StepAnswer>> {
  const answers = openAnswers(record, eye, health);
  if (health.absolute.length === 0) return answers;
  return Object.fromEntries(STEPS.map(({ id }) => [id, NEVER_SHUT.includes(id) ? answers[id] : { code: 'shut', state: 'shut' }])) as Record<StepId, StepAnswer>;
}

/** What was asked. */
function historyAnswer(health: HealthState): StepAnswer {
  if (health.alert !== null) return { code: 'alert', state: 'stop' };
  const number = Object.keys(health.said).length;
  return number === 0 ? { code: 'notAsked', state: null } : { code: 'asked', state: 'ok', number };
}

/** What was seen, and whether it stops a lens. */
function eyeHealthAnswer(health: HealthState): StepAnswer {
  if (health.absolute.length > 0) return { code: 'noLens', state: 'stop' };
  if (health.waiting.length > 0) return { code: 'stopWaits', state: 'stop' };
  if (health.fired.some((f) => PASSABLE.includes(f.rule.strength))) return { code: 'passed', state: 'watch' };
  const graded = EYES.some((e) => Object.keys(health.today[e]).length > 0);
  if (!graded) return { code: 'notGraded', state: null };
  const seen = health.fired.filter((f) => f.eyes.length > 0).length;
  return seen === 0 ? { code: 'clear', state: 'ok' } : { code: 'watch', state: 'watch', number: seen };
}

function openAnswers(record: VisitRecord, eye: (eye: Eye) => EyeState, health: HealthState): Readonly<Record<StepId, StepAnswer>> {
  const right = eye('right');
  const left = eye('left');
  const both = [right, left];
  const measuredAt = both
    .flatMap((s) => [s.refraction, s.series.at(-1), s.overRefraction].flatMap((c) => (c ? [c.current.recordedAt] : [])))
    .sort()
    .at(-1);
  const disagree = both.some((s) => s.verdict.routes?.agree === false);
  const prescription = record.prescriptions.find((p) => p.visitId === record.visit.id);
  const lesson = record.lessons.filter((l) => l.visitId === record.visit.id).at(-1);
  const order = record.orders.find((o) => o.visitId === record.visit.id);
  const read = both.some((s) => s.overRefraction !== null || s.turn !== null);
  return {
    history: historyAnswer(health),
    eyeHealth: eyeHealthAnswer(health),
    power: eyesAnswer(right.refraction !== null, left.refraction !== null),
    lens: eyesAnswer(right.onEye !== null, left.onEye !== null),
    onEye: disagree ? { code: 'measureAgain', state: 'watch' } : read ? { code: 'read', state: 'ok' } : { code: 'notYet', state: null },
    final: !prescription
      ? { code: 'notYet', state: null }
      : measuredAt !== undefined && measuredAt > prescription.issuedAt
        ? { code: 'checkAgain', state: 'watch' }
        : { code: 'signed', state: 'ok', number: prescription.number },
    teach: !lesson ? { code: 'notYet', state: null } : lesson.signOffId ? { code: 'signedOff', state: 'ok' } : { code: 'running', state: null },
    supply: !order
      ? { code: 'notYet', state: null }
      : order.events.some((e) => e.state === 'acknowledged')
        ? { code: 'acknowledged', state: 'ok', number: order.number }
        : { code: 'ordered', state: 'watch', number: order.number },
  };
}
