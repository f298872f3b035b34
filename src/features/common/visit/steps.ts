import type { Eye, EyeState } from '@/core';
import type { VisitRecord } from '@/services/visitRecord';
import type { State } from '@/ui/marks';

/** The eight steps of a fit, in order; `slug` is its page, null for one that is kept elsewhere as yet. */
export const STEPS = [
  { id: 'history', slug: null },
  { id: 'eyeHealth', slug: null },
  { id: 'power', slug: 'power' },
  { id: 'lens', slug: 'lens' },
  { id: 'onEye', slug: 'on-eye' },
  { id: 'final', slug: 'final' },
  { id: 'teach', slug: 'teach' },
  { id: 'supply', slug: 'supply' },
] as const;
export type StepId = (typeof STEPS)[number]['id'];
export type StepSlug = Exclude<(typeof STEPS)[number]['slug'], null>;
export const OPEN_STEPS = STEPS.filter((s): s is Extract<(typeof STEPS)[number], { slug: string }> => s.slug !== null);
export const isStepSlug = (slug: string): slug is StepSlug => OPEN_STEPS.some((s) => s.slug === slug);

/** What a step says of itself in the index: a code for its words, and its state. */
export interface StepAnswer {
  readonly code:
    | 'none'
    | 'notYet'
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
  readonly state: State | null;
  readonly number?: number;
}

const eyesAnswer = (right: boolean, left: boolean): StepAnswer => {
  if (right && left) return { code: 'both', state: 'ok' };
  if (right || left) return { code: right ? 'rightOnly' : 'leftOnly', state: 'ok' };
  return { code: 'notYet', state: null };
};

/** Later work is kept when an earlier step changes; it is marked to be checked again. */
export function stepAnswers(record: VisitRecord, eye: (eye: Eye) => EyeState): Readonly<Record<StepId, StepAnswer>> {
  const right = eye('right');
  const left = eye('left');
  const both = [right, left];
  const measuredAt = both
    .flatMap((s) => [s.refraction, s.rotation, s.overRefraction].flatMap((c) => (c ? [c.current.recordedAt] : [])))
    .sort()
    .at(-1);
  const disagree = both.some((s) => s.verdict.routes?.agree === false);
  const prescription = record.prescriptions.find((p) => p.visitId === record.visit.id);
  const lesson = record.lessons.filter((l) => l.visitId === record.visit.id).at(-1);
  const order = record.orders.find((o) => o.visitId === record.visit.id);
  const read = both.some((s) => s.overRefraction ?? s.rotation);
  return {
    history: { code: 'none', state: null },
    eyeHealth: { code: 'none', state: null },
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
