import type { PracticeSettings } from '../practiceSettings';
import { latest, type FactChain } from '../record/chains';
import type { AnyFact } from '../record/fact';
import type { AdverseEventFact, ReturnToWearFact } from '../aftercare/adverseEvent';
import { openEvent } from '../aftercare/openEvent';
import type { CornealLesionFact, RecordedFinding } from '../record/visitFacts';
import { EYES, type Eye, type IsoInstant } from '../units';
import type { Answer, Answers, AnswerValue } from './answers';
import { sightThreats, worstLesion, type SightThreat } from './cornealLesion';
import { evidenceKey, firedRules, notOverridden, type Fired } from './evaluate';
import { adviceFacts, type AdviceFacts, type PowerSummary } from './facts';
import { question, type QuestionId } from './questions';
import { RED_EYE_SIGNS, SYMPTOMS, type Findings, type SignId } from './signs';

/** An answer as it was recorded; null: taken back. */
export interface RecordedAnswer {
  readonly id: string;
  readonly visitId: string;
  readonly question: QuestionId;
  readonly value: AnswerValue | null;
  readonly note: string | null;
  readonly acknowledgedAt: string | null;
}

export interface HealthInput {
  readonly visitId: string;
  /** Of this visit and, newest of each question, of those before it; oldest first. */
  readonly answers: readonly RecordedAnswer[];
  /** Of this visit and, newest of each sign and eye, of those before it; oldest first. */
  readonly findings: readonly FactChain<RecordedFinding>[];
  /** What was drawn on the corneas at this visit. */
  readonly lesions?: readonly FactChain<CornealLesionFact>[];
  /** What went wrong with either eye at any visit, and what ended it. */
  readonly adverseEvents?: readonly FactChain<AdverseEventFact>[];
  readonly returns?: readonly FactChain<ReturnToWearFact>[];
  /** The lowest figure of each sign at any visit before this one. */
  readonly lowest: Readonly<Record<Eye, Findings>>;
  /** The flattest that the steeper meridian was within about a year before, mm; null or left out where it was not measured. */
  readonly flattestSteep?: Readonly<Record<Eye, number | null>>;
  readonly stops: readonly { readonly id: string; readonly endedAt: string | null }[];
  readonly overrides: readonly { readonly evidenceKey: string }[];
  readonly age: number;
  readonly guardianNamed: boolean;
  readonly power: PowerSummary | null;
  /** Staff whose grades count as a prescriber's. */
  readonly prescribers?: readonly string[];
  readonly settings: PracticeSettings;
}

/** History and eye health of a visit as they stand, and what follows from them. */
export interface HealthState {
  /** Said in this visit. */
  readonly said: Answers;
  /** Said last before this visit. */
  readonly before: Answers;
  /** What holds: said today, else carried over; carried answers still stop. */
  readonly answers: Answers;
  readonly today: Readonly<Record<Eye, Findings>>;
  readonly findings: Readonly<Record<Eye, Findings>>;
  readonly baseline: Readonly<Record<Eye, Findings>>;
  /** What was drawn on each cornea at this visit. */
  readonly lesions: Readonly<Record<Eye, readonly CornealLesionFact[]>>;
  /** What threatens the sight of each eye, by what was seen at this visit. */
  readonly threats: Readonly<Record<Eye, readonly SightThreat[]>>;
  /** Signs that were said at this visit to be as last time, and when they were really seen. */
  readonly repeated: Readonly<Record<Eye, Readonly<Partial<Record<SignId, IsoInstant>>>>>;
  readonly facts: AdviceFacts;
  readonly fired: readonly Fired[];
  /** Stops that wait for a prescriber's reason. */
  readonly waiting: readonly Fired[];
  /** Absolute stops of the wearer that nobody has ended. */
  readonly absolute: readonly string[];
  /** A danger sign heard that nobody took note of, whatever was answered since. */
  readonly alert: { readonly answerId: string; readonly signs: readonly string[] } | null;
}

/** Asked afresh at every visit: what was so last time says nothing of today. */
const OF_THE_DAY: readonly string[] = ['danger', 'onset', 'headache', ...SYMPTOMS.map((s) => s.id), ...RED_EYE_SIGNS.map((s) => s.id)];
/** Said of one day among answers that hold longer. */
const DAY_OPTIONS: Readonly<Partial<Record<QuestionId, readonly string[]>>> = { health: ['illToday'] };

/** A grade that was not seen today, but said to be as it was. */
const isRepeated = (chain: FactChain<RecordedFinding>): boolean => chain.current?.copiedFromId != null;

function answersOf(rows: readonly RecordedAnswer[]): Answers {
  const out: Partial<Record<QuestionId, Answer>> = {};
  for (const row of rows) {
    if (row.value === null) delete out[row.question];
    else out[row.question] = { value: row.value, note: row.note };
  }
  return out;
}

function findingsOf(chains: readonly FactChain<RecordedFinding>[], eye: Eye): Findings {
  const out: Partial<Record<SignId, number | string>> = {};
  for (const chain of chains) {
    const row = chain.current;
    if (row?.eye !== eye) continue;
    const value = row.numberValue ?? row.wordValue;
    if (value !== null) out[row.sign as SignId] = value;
  }
  return out;
}

/** An answer without what was said of its day alone; undefined when nothing is left of it. */
function carriedOver(id: QuestionId, answer: Answer): Answer | undefined {
  const gone = DAY_OPTIONS[id];
  if (!gone || !Array.isArray(answer.value)) return answer;
  const value = (answer.value as readonly string[]).filter((v) => !gone.includes(v));
  return value.length === 0 ? undefined : { ...answer, value };
}

const lasting = <T extends Findings | Answers>(all: T): T => Object.fromEntries(Object.entries(all).filter(([key]) => !OF_THE_DAY.includes(key))) as T;

/** Puts the recorded rows together. Later rows hold; what is of the day is not carried over. */
export function healthState(input: HealthInput): HealthState {
  const earlier = (visitId: string): boolean => visitId !== input.visitId;
  const said = answersOf(input.answers.filter((a) => a.visitId === input.visitId));
  const before: Answers = Object.fromEntries(
    (Object.entries(lasting(answersOf(input.answers.filter((a) => earlier(a.visitId))))) as [QuestionId, Answer][]).flatMap(([id, answer]) => {
      const kept = carriedOver(id, answer);
      return kept ? [[id, kept]] : [];
    }),
  );
  // Who says today that no lens was ever worn takes back what was carried over about wearing them.
  const never = said.lastWorn?.value === 'never';
  const carried = Object.fromEntries(Object.entries(before).filter(([id]) => !(never && question(id)?.asked === 'wornBefore')));
  const answers: Answers = { ...carried, ...said };
  const ofVisit = (c: FactChain<AnyFact>): boolean => c.rows[0]?.visitId === input.visitId;
  const pick = (of: 'today' | 'before', eye: Eye): Findings =>
    findingsOf(
      input.findings.filter((c) => (of === 'today' ? ofVisit(c) && !isRepeated(c) : earlier(c.rows[0]?.visitId ?? ''))),
      eye,
    );
  const both = (make: (eye: Eye) => Findings): Record<Eye, Findings> => ({ right: make('right'), left: make('left') });
  const today = both((eye) => pick('today', eye));
  const lesionsOf = (eye: Eye): readonly CornealLesionFact[] => (input.lesions ?? []).flatMap((c) => (c.current?.eye === eye && ofVisit(c) ? [c.current] : []));
  const repeatedOf = (eye: Eye): HealthState['repeated'][Eye] =>
    Object.fromEntries(input.findings.flatMap((c) => (ofVisit(c) && isRepeated(c) && c.current?.eye === eye ? [[c.current.sign, c.current.observedAt]] : [])));
  const baseline = both((eye) => pick('before', eye));
  const corneaSeen = (eye: Eye): 'yes' | 'no' =>
    input.findings.some((c) => {
      const row = c.current;
      return row?.visitId === input.visitId && row.eye === eye && row.sign === 'staining' && (input.prescribers ?? []).includes(row.recordedBy);
    })
      ? 'yes'
      : 'no';
  const lesions = { right: lesionsOf('right'), left: lesionsOf('left') };
  const worst = (eye: Eye): Findings => {
    const lesion = worstLesion(lesions[eye]);
    return lesion === undefined ? {} : { lesion };
  };
  const off = (eye: Eye): Findings => (openEvent(input.adverseEvents ?? [], input.returns ?? [], eye) ? { lensesOff: 'yes' } : {});
  const steeper = (eye: Eye): Findings => {
    const by = steepening(today[eye].kSteepMm, input.flattestSteep?.[eye] ?? null);
    return by === null ? {} : { kSteeper: by };
  };
  const findings = both((eye) => ({ ...lasting(baseline[eye]), ...today[eye], corneaSeen: corneaSeen(eye), ...worst(eye), ...off(eye), ...steeper(eye) }));
  const { age, guardianNamed, lowest, power, settings } = input;
  const facts = adviceFacts({ answers, age, guardianNamed, eyes: findings, baseline, lowest, power, settings });
  const fired = firedRules(facts);
  const heard = input.answers.flatMap((a) => {
    const counts = a.question === 'danger' && a.acknowledgedAt === null;
    const signs = counts && Array.isArray(a.value) ? (a.value as readonly string[]).filter((s) => s !== 'none') : [];
    return signs.length > 0 ? [{ answerId: a.id, signs }] : [];
  });
  return {
    said,
    before,
    answers,
    today,
    findings,
    baseline,
    lesions,
    threats: { right: sightThreats(today.right, lesions.right), left: sightThreats(today.left, lesions.left) },
    repeated: { right: repeatedOf('right'), left: repeatedOf('left') },
    facts,
    fired,
    waiting: notOverridden(
      fired,
      input.overrides.map((p) => p.evidenceKey),
    ),
    absolute: input.stops.filter((s) => s.endedAt === null).map((s) => s.id),
    alert: heard.at(-1) ?? null,
  };
}

/**
 * How much steeper the steepest meridian of a cornea has become, D; null where it was not measured both times, or got no steeper.
 * @param now radius measured today, mm
 * @param before the flattest of about a year before, mm
 * @example steepening(7.2, 7.4) → 1.27
 * @source keratometer constant 337.5; a dioptre in a year as the sign of an ectasia that goes on: published, from memory
 */
export function steepening(now: number | string | undefined, before: number | null): number | null {
  if (typeof now !== 'number' || before === null || now >= before) return null;
  return Math.round((337.5 / now - 337.5 / before) * 100) / 100;
}

type Power = { readonly sphere: number; readonly cylinder: number };

/**
 * The strongest power of either eye, for rules that look at powers, and how far it has moved towards minus.
 * @param shift most movement towards minus of either eye since the refraction before, D; null while there is none to compare
 */
export function powerSummary(needs: Readonly<Record<Eye, Power | null>>, shift: number | null = null): PowerSummary | null {
  const moved = shift === null ? {} : { myopicShift: shift };
  const known = EYES.flatMap((eye) => (needs[eye] ? [needs[eye]] : []));
  if (known.length === 0) return shift === null ? null : { strongestSphere: 0, strongestCylinder: 0, ...moved };
  return {
    ...moved,
    strongestSphere: Math.max(...known.map((n) => Math.abs(n.sphere))),
    strongestCylinder: Math.max(...known.map((n) => Math.abs(n.cylinder))),
  };
}

/**
 * How far the refraction of either eye has moved towards minus, as spherical equivalent.
 * @param now of this visit, D
 * @param before the refraction before, D
 * @returns D, 0 where it moved towards plus; null while no eye has both
 * @example myopicShift({right: {sphere: -3, cylinder: 0}, left: null}, {right: {sphere: -2, cylinder: 0}, left: null}) → 1
 * @source drug-induced myopia: published, from memory
 */
export function myopicShift(now: Readonly<Record<Eye, Power | null>>, before: Readonly<Record<Eye, Power | null>>): number | null {
  const moved = EYES.flatMap((eye) => {
    const [a, b] = [now[eye], before[eye]];
    return a && b ? [b.sphere + b.cylinder / 2 - (a.sphere + a.cylinder / 2)] : [];
  });
  return moved.length === 0 ? null : Math.max(0, ...moved);
}

/** Today's chain of a sign on an eye, for showing and correcting it. */
export const findingChain = (
  chains: readonly FactChain<RecordedFinding>[],
  visitId: string,
  eye: Eye,
  sign: string,
): (FactChain<RecordedFinding> & { readonly current: RecordedFinding }) | null =>
  latest(chains, (row) => row.visitId === visitId && row.eye === eye && row.sign === sign);

/** The reason given for a stop that holds, if one was. */
export const overrideOf = <P extends { readonly evidenceKey: string }>(fired: Fired, overrides: readonly P[]): P | null =>
  overrides.findLast((p) => p.evidenceKey === evidenceKey(fired)) ?? null;

/**
 * Is sight a single line short enough to ask about this eye? With pain, light that hurts, stain or an infiltrate seen today,
 * and in an only good eye. Common practice.
 */
export function eyeAtRisk(health: HealthState, eye: Eye): boolean {
  const seen = health.today[eye];
  const atLeast = (key: SignId, least: number): boolean => typeof seen[key] === 'number' && seen[key] >= least;
  const history = health.answers.eyeHistory?.value;
  const said = health.said.danger?.value;
  const named = (value: AnswerValue | undefined, ...any: readonly string[]): boolean => Array.isArray(value) && any.some((a) => value.includes(a));
  return (
    atLeast('pain', 1) ||
    seen.light === 'hurts' ||
    atLeast('staining', 0.5) ||
    atLeast('infiltrates', 0.5) ||
    named(history, 'onlyGoodEye') ||
    named(said, 'pain', 'light', 'vision')
  );
}
