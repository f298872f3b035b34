import type { HealthState } from '../advice/healthState';
import { GRADED, RED_EYE_SIGNS } from '../advice/signs';
import { OVERRIDABLE } from '../advice/stopRules';
import type { EyeState } from '../fit/eyeState';
import { EYES, type Eye } from '../units';
import type { LessonRow } from './lesson';
import type { Order } from './order';
import type { Prescription } from './prescription';
import { latest, type FactChain } from './chains';
import type { AftercareAnswerFact, AftercareEndFact, NearFindingFact, WornAnswerFact } from './visitFacts';
import { NEVER_LOCKED, STEP_IDS, stepsOf, type StepId, type VisitKind } from './visitSteps';

/** What a step says of itself in the index: a code for its words, and its state. */
export interface StepAnswer {
  readonly code:
    | 'notYet'
    | 'notAsked'
    | 'asWorn'
    | 'decided'
    | 'otherWorn'
    | 'noneWorn'
    | 'asked'
    | 'alert'
    | 'notGraded'
    | 'clear'
    | 'watch'
    | 'stopWaits'
    | 'passed'
    | 'noLens'
    | 'locked'
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
    | 'checkAgain'
    | 'sightThreatened'
    | 'lensesOff'
    | 'keep'
    | 'change'
    | 'stop';
  readonly state: 'ok' | 'watch' | 'stop' | 'locked' | null;
  readonly number?: number;
}

const eyesAnswer = (right: boolean, left: boolean): StepAnswer => {
  if (right && left) return { code: 'both', state: 'ok' };
  if (right || left) return { code: right ? 'rightOnly' : 'leftOnly', state: 'ok' };
  return { code: 'notYet', state: null };
};

export type StepAnswers = Readonly<Record<StepId, StepAnswer>>;

/** What the answers of the steps rest on. */
export interface Answered {
  readonly visitId: string;
  readonly kind: VisitKind;
  readonly eyes: Readonly<Record<Eye, EyeState>>;
  readonly health: HealthState;
  readonly prescriptions: readonly Pick<Prescription, 'visitId' | 'issuedAt' | 'number'>[];
  readonly lessons: readonly Pick<LessonRow, 'visitId' | 'signOffId'>[];
  readonly orders: readonly Pick<Order, 'visitId' | 'events' | 'number'>[];
  readonly wornAnswers: readonly FactChain<WornAnswerFact>[];
  readonly aftercareEnds: readonly FactChain<AftercareEndFact>[];
  readonly aftercare: readonly FactChain<AftercareAnswerFact>[];
  readonly nearFindings: readonly FactChain<NearFindingFact>[];
}

/** Later work is kept when an earlier step changes; it is marked to be checked again. */
export function stepAnswers(of: Answered): StepAnswers {
  const answers = openAnswers(of);
  if (of.health.absolute.length === 0) return answers;
  return Object.fromEntries(STEP_IDS.map((id) => [id, NEVER_LOCKED.includes(id) ? answers[id] : { code: 'locked', state: 'locked' }])) as Record<
    StepId,
    StepAnswer
  >;
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
  if (health.fired.some((f) => OVERRIDABLE.includes(f.rule.strength))) return { code: 'passed', state: 'watch' };
  // A measure is no look: an eye whose curve or pupil alone was taken is not clear.
  const graded = EYES.some((e) => GRADED.some(({ id }) => health.today[e][id] !== undefined));
  if (!graded) return { code: 'notGraded', state: null };
  const seen = health.fired.filter((f) => f.eyes.length > 0).length;
  return seen === 0 ? { code: 'clear', state: 'ok' } : { code: 'watch', state: 'watch', number: seen };
}

/** What is on the eyes, as asked in this visit. */
function wornAnswer({ visitId, wornAnswers }: Answered): StepAnswer {
  const said = EYES.map((eye) => latest(wornAnswers, (a) => a.eye === eye && a.visitId === visitId)?.current.answer ?? null);
  const given = said.filter((a) => a !== null);
  if (given.length === 0) return { code: 'notAsked', state: null };
  if (given.every((a) => a === 'yes'))
    return said.length === given.length ? { code: 'asWorn', state: 'ok' } : { code: said[0] ? 'rightOnly' : 'leftOnly', state: 'ok' };
  if (given.every((a) => a === 'glasses' || a === 'lost')) return { code: 'noneWorn', state: 'watch' };
  return { code: 'otherWorn', state: 'watch' };
}

/** What threatens sight, or that a red eye was looked at. */
function redEyeAnswer({ health }: Answered): StepAnswer {
  if (EYES.some((e) => health.threats[e].length > 0)) return { code: 'sightThreatened', state: 'stop' };
  const looked = EYES.some((e) => health.lesions[e].length > 0 || RED_EYE_SIGNS.some((s) => health.today[e][s.id] !== undefined));
  return looked ? { code: 'read', state: 'ok' } : { code: 'notYet', state: null };
}

/** Whether everything that is fresh at an annual visit has been looked at; other kinds of visit have no such page. */
function asLastTimeAnswer({ kind, health, eyes }: Answered): StepAnswer {
  const done = health.said.danger !== undefined && EYES.every((e) => eyes[e].overRefraction !== null && health.today[e].staining !== undefined);
  return done && stepsOf(kind).includes('asLastTime') ? { code: 'read', state: 'ok' } : { code: 'notYet', state: null };
}

/** How aftercare ended, or that it is under way. */
function aftercareAnswer({ visitId, aftercareEnds, aftercare, health }: Answered): StepAnswer {
  // Wherever an eye is without a lens the way back is at hand.
  if (EYES.some((e) => health.findings[e].lensesOff === 'yes')) return { code: 'lensesOff', state: 'stop' };
  const outcome = latest(aftercareEnds, (e) => e.visitId === visitId)?.current.outcome;
  if (outcome) return { code: outcome, state: outcome === 'keep' ? 'ok' : 'watch' };
  return aftercare.some((a) => a.current?.visitId === visitId) ? { code: 'running', state: null } : { code: 'notYet', state: null };
}

/** Whether it is decided how near is served, and how much of it was asked here. */
function nearAnswer({ visitId, nearFindings }: Answered): StepAnswer {
  const here = nearFindings.filter((c) => c.current?.visitId === visitId);
  if (here.some((c) => c.current?.sign === 'way')) return { code: 'decided', state: 'ok' };
  return here.length > 0 ? { code: 'running', state: null } : { code: 'notYet', state: null };
}

function openAnswers(of: Answered): StepAnswers {
  const {
    visitId,
    eyes: { right, left },
    health,
    prescriptions,
    lessons,
    orders,
  } = of;
  const both = [right, left];
  const measuredAt = both
    .flatMap((s) => [s.refraction, s.series.at(-1), s.overRefraction].flatMap((c) => (c ? [c.current.recordedAt] : [])))
    .sort()
    .at(-1);
  const disagree = both.some((s) => s.verdict.routes?.agree === false);
  const prescription = prescriptions.find((p) => p.visitId === visitId);
  const lesson = lessons.filter((l) => l.visitId === visitId).at(-1);
  const order = orders.find((o) => o.visitId === visitId);
  const read = both.some((s) => s.overRefraction !== null || s.turn !== null);
  return {
    redEye: redEyeAnswer(of),
    asLastTime: asLastTimeAnswer(of),
    wornNow: wornAnswer(of),
    aftercare: aftercareAnswer(of),
    history: historyAnswer(health),
    eyeHealth: eyeHealthAnswer(health),
    refraction: eyesAnswer(right.refraction !== null, left.refraction !== null),
    nearVision: nearAnswer(of),
    lens: eyesAnswer(right.onEye !== null, left.onEye !== null),
    onEye: disagree ? { code: 'measureAgain', state: 'watch' } : read ? { code: 'read', state: 'ok' } : { code: 'notYet', state: null },
    prescription: !prescription
      ? { code: 'notYet', state: null }
      : measuredAt !== undefined && measuredAt > prescription.issuedAt
        ? { code: 'checkAgain', state: 'watch' }
        : { code: 'signed', state: 'ok', number: prescription.number },
    lesson: !lesson ? { code: 'notYet', state: null } : lesson.signOffId ? { code: 'signedOff', state: 'ok' } : { code: 'running', state: null },
    supply: !order
      ? { code: 'notYet', state: null }
      : order.events.some((e) => e.state === 'acknowledged')
        ? { code: 'acknowledged', state: 'ok', number: order.number }
        : { code: 'ordered', state: 'watch', number: order.number },
  };
}
