import type { LogMar } from '../optics/acuity';
import type { Refraction } from '../optics/refraction';
import { latest, type FactChain } from '../record/chains';
import type { Fact } from '../record/fact';
import type {
  PowerColumns,
  RefractionFact,
  OnEyeFact,
  FitFact,
  RotationFact,
  LensFindingFact,
  LensChoice,
  OverRefractionFact,
  OnEyeExtra,
  VisitFacts,
} from '../record/visitFacts';
import type { RotationRules, TriedFamily } from '../rotation/rotationVerdict';
import { knownMean, withKnown, type KnownTurn } from '../rotation/knownTurn';
import { seriesStats, type SeriesStats } from '../rotation/series';
import type { EyeAim } from '../presbyopia/aims';
import { demandOf } from '../presbyopia/nearTask';
import type { Degrees, Eye, IsoInstant } from '../units';
import { eyeVerdict, type EyeVerdict, type Picked } from './eyeVerdict';
import { judgeFit, type FitVerdict } from './fitVerdict';
import { isLensSign, type LensFindings, type LensSignId } from './lensSigns';
import type { MovementSchool } from './movement';
import type { EyeAcuities } from './overDoubts';
import { expectedLoss, gainsLineOf } from './sight';

/** What the library says of a lens. */
export interface LensOfEye {
  readonly power: Refraction;
  readonly tried: TriedFamily | null;
}
/** What a practice has set that a verdict depends on. */
export interface EyeRules extends RotationRules {
  readonly movement: MovementSchool;
}

/** What of the wearer bears on one eye beside what was measured in this visit. */
export interface EyeContext {
  /** Another lens of the visit than the one decided on. */
  readonly lensOnEyeId?: string;
  /** Years; without it taken as grown up. */
  readonly age?: number | null;
  /** A prescriber's choice where refraction and over-refraction do not agree. */
  readonly picked?: Picked | null;
  /** Best acuity of this eye recorded at earlier visits. */
  readonly bestBefore?: LogMar | null;
  /** Pain, stain, an infiltrate or an only good eye: sight a single line short is asked about. */
  readonly oneLineAsks?: boolean;
  /** What the eye is to see; without it far and near. */
  readonly aim?: EyeAim;
  /** How lenses of this visit, or others of their family, turned on this eye before. */
  readonly knownTurns?: readonly KnownTurn[];
}

type Current<F extends Fact> = (FactChain<F> & { readonly current: F }) | null;

/** One eye as it stands in a visit. */
export interface EyeState {
  readonly refraction: Current<RefractionFact>;
  /** The lens decided on: the one put on last, or an earlier one that was taken up again. */
  readonly onEye: Current<OnEyeFact>;
  /** Why an earlier lens was taken up again; null for the last one. */
  readonly choice: LensChoice | null;
  readonly confirmed: OnEyeExtra['how'];
  readonly takenOffAt: IsoInstant | null;
  /** The lens has a mark whose turn counts: a toric, also one with no cylinder in it. */
  readonly toric: boolean;
  readonly fit: Current<FitFact>;
  /** The last series of readings of the mark, in the order read. */
  readonly series: readonly RotationChain[];
  readonly turn: SeriesStats | null;
  /** The turn of an earlier visit that counts with today's look, since that found it again; null where today's readings stand alone. */
  readonly turnConfirms: KnownTurn | null;
  /** Where the mark is known to sit from an earlier visit, degrees; null where nobody knows. */
  readonly turnKnown: Degrees | null;
  readonly overRefraction: Current<OverRefractionFact>;
  /** Where the mark sat when it was taken; null when it was not read. */
  readonly overTurn: Degrees | null;
  /** Over-refractions taken before it, each by itself, through the same lens; oldest first. */
  readonly overBefore: readonly (FactChain<OverRefractionFact> & { readonly current: OverRefractionFact })[];
  /** What was seen of the lens, the newest of each sign. */
  readonly findings: LensFindings;
  readonly findingChains: Readonly<Partial<Record<LensSignId, LensFindingChain>>>;
  /** What it is to see. */
  readonly aim: EyeAim;
  readonly acuities: EyeAcuities;
  readonly fitVerdict: FitVerdict;
  readonly verdict: EyeVerdict;
}
export type RotationChain = FactChain<RotationFact> & { readonly current: RotationFact };
export type LensFindingChain = FactChain<LensFindingFact> & { readonly current: LensFindingFact };

export const powerOf = (row: PowerColumns): Refraction => ({ sphere: row.sphereD, cylinder: row.cylinderD, axis: row.axisDeg });

const holds = <F extends Fact>(chain: FactChain<F>): chain is FactChain<F> & { readonly current: F } => chain.current !== null;

/** The last series of readings through one lens. @example lastSeries([], 'lens-1') → [] */
export function lastSeries(rotations: readonly FactChain<RotationFact>[], lensOnEyeId: string): readonly RotationChain[] {
  const all = rotations.filter(holds).filter((c) => c.current.lensOnEyeId === lensOnEyeId);
  const newest = Math.max(...all.map((c) => c.current.seriesNo));
  return all.filter((c) => c.current.seriesNo === newest);
}

/** Where the mark sat when something was read through a lens: by the last series up to then, else by the first after it. */
export function turnWhen(rotations: readonly FactChain<RotationFact>[], lensOnEyeId: string, at: IsoInstant): Degrees | null {
  const all = rotations
    .filter(holds)
    .map((c) => c.current)
    .filter((r) => r.lensOnEyeId === lensOnEyeId);
  if (all.length === 0) return null;
  const upTo = all.filter((r) => r.recordedAt <= at);
  const series = upTo.length > 0 ? Math.max(...upTo.map((r) => r.seriesNo)) : Math.min(...all.map((r) => r.seriesNo));
  const readings = all.filter((r) => r.seriesNo === series).map((r) => r.rotationLeftDeg);
  return readings.reduce((a, b) => a + b, 0) / readings.length;
}

/**
 * Best acuity of an eye among facts, whatever it was seen with: glasses, pinhole, no correction, any lens.
 * @returns logMAR; null where none was read
 * @example bestAcuity({refractions: [], overRefractions: [], lensFindings: [], eyeAcuities: []}, 'right') → null
 */
export function bestAcuity(facts: Pick<VisitFacts, 'refractions' | 'overRefractions' | 'lensFindings' | 'eyeAcuities'>, eye: Eye): LogMar | null {
  const read: (LogMar | null)[] = [
    ...[...facts.refractions, ...facts.overRefractions, ...facts.eyeAcuities].map((c) => (c.current?.eye === eye ? c.current.acuityLogMar : null)),
    ...facts.lensFindings.map((c) => (c.current?.eye === eye && c.current.sign.startsWith('acuity') ? c.current.numberValue : null)),
  ];
  const known = read.filter((a) => a !== null);
  return known.length === 0 ? null : Math.min(...known);
}

/** The newest chain of each sign seen through one lens. */
function findingsOf(chains: readonly FactChain<LensFindingFact>[], lensOnEyeId: string): Readonly<Partial<Record<LensSignId, LensFindingChain>>> {
  const out: Partial<Record<LensSignId, LensFindingChain>> = {};
  for (const chain of chains) if (holds(chain) && chain.current.lensOnEyeId === lensOnEyeId && isLensSign(chain.current.sign)) out[chain.current.sign] = chain;
  return out;
}
/** Values of finding chains by sign. */
export const findingValues = (chains: Readonly<Partial<Record<LensSignId, LensFindingChain>>>): LensFindings =>
  Object.fromEntries(Object.entries(chains).map(([sign, chain]) => [sign, chain.current.numberValue ?? chain.current.wordValue ?? '']));

const numberOf = (value: number | string | undefined): number | null => (typeof value === 'number' ? value : null);

/** Vergence from which on a task counts as near, D. Our own choice: an arm's length. */
const NEAR_FROM = 1.5;
/** Sight of one eye alone at near through a lens, logMAR, the newest; null where the other was not covered for it. */
function nearThrough({ taskSights }: Pick<VisitFacts, 'taskSights'>, eye: Eye, lensOnEyeId: string): LogMar | null {
  const alone = taskSights.flatMap(({ current: row }) =>
    row && row.covered !== null && row.covered !== eye && row[`${eye}LensOnEyeId`] === lensOnEyeId && demandOf(row.distanceCm) >= NEAR_FROM
      ? (row.acuityLogMar ?? [])
      : [],
  );
  return alone.at(-1) ?? null;
}

/** The lens an eye is decided on: the newest, unless an earlier one was taken up again after it. */
function decidedOn(facts: VisitFacts, eye: Eye): { readonly onEye: Current<OnEyeFact>; readonly choice: LensChoice | null } {
  const newest = latest(facts.onEye, (r) => r.eye === eye);
  const ofEye = new Map(facts.onEye.filter((c) => c.current?.eye === eye).map((c) => [c.rootId, c]));
  const choice = facts.choices.filter((c) => ofEye.has(c.lensOnEyeId)).at(-1);
  if (!newest || !choice || choice.chosenAt < newest.current.putOnAt) return { onEye: newest, choice: null };
  const chain = ofEye.get(choice.lensOnEyeId);
  return chain && holds(chain) ? { onEye: chain, choice: chain.rootId === newest.rootId ? null : choice } : { onEye: newest, choice: null };
}

const measured = (row: OverRefractionFact) => ({ power: powerOf(row), vertexMm: row.vertexMm });
const better = (a: LogMar | null, b: LogMar | null): LogMar | null => (a === null ? b : b === null ? a : Math.min(a, b));

/**
 * What holds for one eye in a visit, and what it comes to. Readings count only through the lens they were taken
 * with; an unconfirmed lens counts for nothing.
 * @param lensOf power and family of a lens by its id; undefined where the id is not known
 * @param rules what the practice has set
 * @param context what of the wearer bears on it, and another lens of the visit than the one decided on
 * @example eyeState(noFacts, 'right', () => undefined, rules).verdict.order → null
 * @source see eyeVerdict, judgeFit
 */
export function eyeState(facts: VisitFacts, eye: Eye, lensOf: (lensId: string) => LensOfEye | undefined, rules: EyeRules, context: EyeContext = {}): EyeState {
  const refraction = latest(facts.refractions, (r) => r.eye === eye);
  const named = context.lensOnEyeId === undefined ? undefined : facts.onEye.find((c) => c.rootId === context.lensOnEyeId);
  const { onEye, choice } = named && holds(named) ? { onEye: named, choice: null } : decidedOn(facts, eye);
  const extra = facts.onEyeExtras.find((e) => e.lensOnEyeId === onEye?.rootId);
  const ofLens = (row: { readonly eye: Eye; readonly lensOnEyeId: string }): boolean => row.eye === eye && row.lensOnEyeId === onEye?.rootId;
  const fit = latest(facts.fits, ofLens);
  const series = onEye ? lastSeries(facts.rotations, onEye.rootId) : [];
  const overs = facts.overRefractions.filter(holds).filter((c) => ofLens(c.current));
  const overRefraction = overs.at(-1) ?? null;
  const overBefore = overs.slice(0, -1);
  const turnOf = (row: OverRefractionFact): Degrees | null => turnWhen(facts.rotations, row.lensOnEyeId, row.recordedAt);
  const overTurn = overRefraction && turnOf(overRefraction.current);
  const findingChains = onEye ? findingsOf(facts.lensFindings, onEye.rootId) : {};
  const findings = findingValues(findingChains);
  const lens = onEye?.current.lensId && extra?.how ? lensOf(onEye.current.lensId) : undefined;
  const over = overRefraction?.current.acuityLogMar ?? null;
  const aim = context.aim ?? { sees: 'both', plus: 0 };
  const known = context.knownTurns?.find((k) => k.lensOnEyeId === onEye?.rootId) ?? null;
  const turnKnown = known && lens ? knownMean(known, rules, lens.power.cylinder) : null;
  const today = series.map((c) => c.current.rotationLeftDeg);
  const readings = withKnown(today, turnKnown, known?.readings ?? []);
  const turn = readings.length === 0 ? null : seriesStats(readings, rules.readerNoiseDegrees);
  const verdict = eyeVerdict({
    refraction: refraction && { power: powerOf(refraction.current), vertexMm: refraction.current.vertexMm },
    lens: lens?.power ?? null,
    turn,
    recovery: numberOf(findings.recoverySeconds),
    early: series.some((c) => c.current.provisional),
    overRefraction: overRefraction && measured(overRefraction.current),
    overTurn,
    gainsLine: gainsLineOf(aim, numberOf(findings.acuityLens), over),
    control: overRefraction?.current.control ?? 'none',
    overBefore: overBefore.map((c) => ({ ...measured(c.current), turn: turnOf(c.current) })),
    age: context.age ?? null,
    picked: context.picked ?? null,
    nearPlus: aim.plus,
    tried: lens?.tried ?? null,
    rules,
  });
  return {
    refraction,
    onEye,
    choice,
    confirmed: extra?.how ?? null,
    takenOffAt: extra?.takenOffAt ?? null,
    toric: lens !== undefined && (lens.power.cylinder !== 0 || lens.tried?.family.geometry === 'toric' || lens.tried?.family.geometry === 'toricMultifocal'),
    fit,
    series,
    turn,
    turnConfirms: readings.length > today.length ? known : null,
    turnKnown,
    aim,
    overRefraction,
    overTurn,
    overBefore,
    findings,
    findingChains,
    acuities: {
      glasses: refraction?.current.acuityLogMar ?? null,
      lens: numberOf(findings.acuityLens),
      over,
      pinhole: numberOf(findings.acuityPinhole),
      best: better(context.bestBefore ?? null, bestAcuity(facts, eye)),
      expectedLoss: expectedLoss(verdict, lens ?? null, overTurn ?? turn?.mean ?? 0, overRefraction && measured(overRefraction.current)),
      oneLineAsks: context.oneLineAsks ?? false,
      cylinderTested: overRefraction?.current.cylinderTested ?? false,
      nearEye: aim.sees === 'near' && aim.plus > 0,
      near: onEye && nearThrough(facts, eye, onEye.rootId),
    },
    fitVerdict: judgeFit(findings, rules.movement),
    verdict,
  };
}
