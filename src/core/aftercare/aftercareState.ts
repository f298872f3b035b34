import type { AdviceFacts, EyeFacts, FactValue } from '../advice/facts';
import type { HealthState } from '../advice/healthState';
import { LIFE_DAYS } from '../lens/family';
import { toPowerVector } from '../optics/powerVector';
import { bestThroughLens } from '../fit/overDoubts';
import type { EyeState } from '../fit/eyeState';
import type { FactChain } from '../record/chains';
import { labelMissed, labelOfLens } from '../teaching/wearLabel';
import type { LensRow } from '../record/lens';
import type { AftercareAnswerFact } from '../record/visitFacts';
import type { PairEffect } from '../care/carePair';
import { EYES, type Eye, type IsoDate } from '../units';
import { aftercareSaid, aftercareTopics, type AftercareSaid, type AftercareTopic } from './asked';
import type { KeptBySupply } from './replacement';
import { pointsTo, type Pointed } from './rules';

/** What is known of the lens that an eye wears, and how it is worn. */
export interface WornAtAftercare {
  readonly lens: Pick<LensRow, 'modality' | 'geometry' | 'myopiaHours' | 'myopiaDays'>;
  /** How its material and the solution named go together; null where nothing is known. */
  readonly pair: PairEffect | null;
  readonly kept: KeptBySupply | null;
}

export interface AftercareOf {
  readonly visitId: string;
  readonly health: HealthState;
  readonly eyes: Readonly<Record<Eye, EyeState>>;
  /** What each over-refraction looks like, the code of its pattern; `none` where it was read and looks like nothing. */
  readonly overPattern: Readonly<Record<Eye, string | null>>;
  readonly answers: readonly FactChain<AftercareAnswerFact>[];
  readonly worn: Readonly<Record<Eye, WornAtAftercare | null>>;
  /** Sleeping in them was prescribed. */
  readonly overnight: boolean;
}

/** What is still to be looked at before lenses go on as they are. */
export type AftercareOpen = 'danger' | 'trouble' | 'overRefraction' | 'fit' | 'cornea';
export interface AftercareState {
  readonly facts: AdviceFacts;
  readonly pointed: readonly Pointed[];
  /** Of each eye that wears a lens, what nobody has looked at today. */
  readonly open: readonly { readonly eye: Eye | null; readonly what: AftercareOpen }[];
  readonly topics: readonly AftercareTopic[];
  readonly firstNight: IsoDate | null;
}

const isNumber = (value: FactValue | undefined): value is number => typeof value === 'number';

/** Days that a lens is worn past its label, by what is said and by supply; undefined while neither says anything. */
function overdueDays(of: AftercareOf, worn: WornAtAftercare): number | undefined {
  const said = of.health.answers.replacedEvery?.value;
  const label = worn.kept?.labelDays ?? LIFE_DAYS[worn.lens.modality];
  const known = [...(isNumber(said) ? [said - label] : []), ...(worn.kept ? [Math.floor(worn.kept.daysPerLens - label)] : [])];
  return known.length === 0 ? undefined : Math.min(365, Math.max(0, ...known));
}

/** How a lens that turns sits, in a word. */
function turnWord({ toric, verdict }: EyeState): string | undefined {
  if (!toric) return undefined;
  switch (verdict.rotation?.code) {
    case 'compensate':
      return 'turned';
    case 'leave':
      return 'steady';
    case 'refit':
    case 'changeDesign':
      return 'unsteady';
    case 'provisional':
    case undefined:
      return 'unread';
  }
}

/** Lines short of the best this eye is known to see, through the lens with its over-refraction; undefined while it cannot be told. */
function lossLines({ acuities }: EyeState): number | undefined {
  const through = bestThroughLens(acuities);
  const best = [acuities.best ?? null, acuities.glasses, acuities.pinhole].filter((a) => a !== null);
  return through === null || best.length === 0 ? undefined : Math.max(0, Math.round((through - Math.min(...best)) * 10));
}

const troublesOf = (of: AftercareOf, eye: Eye): AftercareSaid | null => aftercareSaid(of.answers, 'trouble', eye, of.visitId);
const isTroubled = (said: AftercareSaid | null): boolean => said !== null && !said.includes('none');

/** Are lenses that slow a child's myopia worn as their label says? Undefined where they have none, or nothing was said of hours and days. */
function labelWord(of: AftercareOf, worn: WornAtAftercare | null): 'met' | 'missed' | undefined {
  const label = labelOfLens(worn?.lens);
  const number = (question: 'hoursPerDay' | 'daysPerWeek'): number | null => {
    const value = of.health.answers[question]?.value;
    return typeof value === 'number' ? value : null;
  };
  const [hours, days] = [number('hoursPerDay'), number('daysPerWeek')];
  if (label === null || (hours === null && days === null)) return undefined;
  return labelMissed(label, hours, days) ? 'missed' : 'met';
}

function eyeFacts(of: AftercareOf, eye: Eye): EyeFacts {
  const state = of.eyes[eye];
  const worn = of.worn[eye];
  const other = troublesOf(of, eye === 'right' ? 'left' : 'right');
  const { comfort, deposits, damage, debris, insideOut } = state.findings;
  const said = troublesOf(of, eye);
  const fit = state.fit?.current.verdict ?? state.fitVerdict.verdict;
  const over = state.overRefraction?.current;
  // A near eye is expected to ask back, at far, what its lens is nearer by.
  const mean = over && Math.abs(toPowerVector({ sphere: over.sphereD, cylinder: over.cylinderD, axis: over.axisDeg }).m + state.aim.plus);
  const known: Readonly<Record<string, FactValue | null | undefined>> = {
    trouble: said,
    onlyThisEye: other === null ? undefined : isTroubled(other) ? 'no' : 'yes',
    comfort,
    deposits,
    damage,
    debris,
    insideOut,
    fit,
    lossLines: lossLines(state),
    changeD: mean,
    overPattern: of.overPattern[eye],
    turn: turnWord(state),
    pair: worn?.pair === 'irritates' || worn?.pair === 'avoid' ? worn.pair : undefined,
    modality: worn?.lens.modality,
    lensKind: worn?.lens.geometry,
    label: labelWord(of, worn),
    overdueDays: worn ? overdueDays(of, worn) : undefined,
    overnight: worn ? (of.overnight ? 'prescribed' : 'notPrescribed') : undefined,
  };
  return { ...of.health.facts.eyes[eye], ...Object.fromEntries(Object.entries(known).filter(([, value]) => value != null)) };
}

/** What an aftercare shows so far: what it points to, and what nobody has looked at. */
export function aftercareState(of: AftercareOf): AftercareState {
  const wearing = EYES.filter((eye) => of.worn[eye] !== null);
  const singleUse = wearing.length > 0 && wearing.every((eye) => of.worn[eye]?.lens.modality === 'daily');
  const topics = aftercareTopics(singleUse, of.overnight);
  const saidBack = aftercareSaid(of.answers, 'saidBack', null, of.visitId);
  const solution = aftercareSaid(of.answers, 'solutionUsed', null, of.visitId)?.[0];
  const glasses = aftercareSaid(of.answers, 'glasses', null, of.visitId)?.[0];
  const person: Record<string, FactValue> = { ...of.health.facts.person };
  if (saidBack !== null) person.notSaidBack = topics.filter((t) => !saidBack.includes(t));
  if (solution !== undefined) person.solutionUsed = solution.includes('-') ? 'known' : solution;
  if (glasses !== undefined) person.glasses = glasses;
  const facts: AdviceFacts = { ...of.health.facts, person, eyes: { right: eyeFacts(of, 'right'), left: eyeFacts(of, 'left') } };
  const open = wearing.flatMap((eye) => {
    const state = of.eyes[eye];
    const missing: AftercareOpen[] = [];
    if (troublesOf(of, eye) === null) missing.push('trouble');
    if (state.overRefraction === null) missing.push('overRefraction');
    if (state.fit === null && state.fitVerdict.verdict === null) missing.push('fit');
    if (of.health.today[eye].staining === undefined) missing.push('cornea');
    return missing.map((what) => ({ eye, what }));
  });
  return {
    facts,
    pointed: pointsTo(facts),
    open: [...(of.health.said.danger === undefined ? [{ eye: null, what: 'danger' as const }] : []), ...open],
    topics,
    firstNight: aftercareSaid(of.answers, 'firstNight', null, null)?.[0] ?? null,
  };
}
