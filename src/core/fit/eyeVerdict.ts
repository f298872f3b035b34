import { fromPowerVector, subtractVectors, toPowerVector } from '../optics/powerVector';
import type { Refraction } from '../optics/refraction';
import { toCornealPlane, toSpectaclePlane } from '../optics/vertex';
import { powerOnEye } from '../rotation/compensate';
import {
  measuredParts,
  needThroughLens,
  resolveOverRefraction,
  type CylinderFrom,
  type EyesNeed,
  type MeasuredParts,
  type ResolvedOverRefraction,
} from '../rotation/resolveOverRefraction';
import { compensatedNeed, rotationVerdict, type OnEyeLens, type RotationRules, type RotationVerdict, type TriedFamily } from '../rotation/rotationVerdict';
import { routesAgree, weightedNeed, type RoutesVerdict, type WeightedNeed } from '../rotation/routesAgree';
import { FEWEST_READINGS, type SeriesStats } from '../rotation/series';
import type { Degrees, Dioptres, Millimetres } from '../units';
import { measureAgainFreed, type Freed } from './measureAgain';
import type { OverControl } from '../record/visitFacts';

/** A power measured at the spectacle or trial-frame plane. */
export interface MeasuredPower {
  readonly power: Refraction;
  readonly vertexMm: Millimetres;
}

/** Of two that do not agree, the one a prescriber has picked. */
export type Picked = 'refraction' | 'overRefraction';

/** What has been measured on one eye. */
export interface EyeMeasurements {
  readonly refraction: MeasuredPower | null;
  /** Labelled power of the confirmed lens on the eye. */
  readonly lens: Refraction | null;
  /** Where its mark sits, over the blinks read; null when not read. */
  readonly turn: SeriesStats | null;
  /** Seconds until back within 10° after a push. */
  readonly recovery: number | null;
  /** The mark was read before the lens had settled. */
  readonly early: boolean;
  readonly overRefraction: MeasuredPower | null;
  /** How the lens sat when the over-refraction was taken, degrees; without it, as it sits now. */
  readonly overTurn?: Degrees | null;
  /** Was a line of letters gained with the over-refraction? Null while letters were not read with and without it. */
  readonly gainsLine?: boolean | null;
  readonly control?: OverControl;
  /** Over-refractions taken before, each by itself, through the same confirmed lens; oldest first. */
  readonly overBefore?: readonly (MeasuredPower & { readonly turn: Degrees | null })[];
  /** Years. */
  readonly age?: number | null;
  /** A prescriber's choice where refraction and over-refraction do not agree. */
  readonly picked?: Picked | null;
  /** By how much the eye is to see nearer than far, D: of a near eye in monovision. */
  readonly nearPlus: Dioptres;
  /** What the lens's family makes; null when it is not in the library. */
  readonly tried: TriedFamily | null;
  readonly rules: RotationRules;
}

/** Why no order is offered. */
export type NoOrder = 'nothing' | 'routesDisagree' | 'notSteadyYet' | 'fewBlinks' | 'refit' | 'changeDesign';

/** The rule that refuses an order, by why none is offered. */
export const NO_ORDER_RULES = {
  nothing: 'nothingMeasured',
  routesDisagree: 'measureAgain',
  notSteadyYet: 'notSteadyYet',
  fewBlinks: 'fewBlinks',
  refit: 'refitFirst',
  changeDesign: 'changeDesign',
} as const satisfies Readonly<Record<NoOrder, string>>;

/** What the rotation says against an order. A lens that has not settled may still come to rest: then it is read again. */
function againstOrder(rotation: RotationVerdict | null, need: Refraction): Exclude<NoOrder, 'nothing' | 'routesDisagree'> | null {
  if (rotation === null) return null;
  if (rotation.code === 'refit' || rotation.code === 'changeDesign') return rotation.code;
  const { why } = rotation;
  if (why === 'unsteady' || why === 'drifting' || why === 'slow') return 'notSteadyYet';
  // A need without a cylinder does not mind how the lens sits.
  return (why === 'few' || why === 'scatters') && need.cylinder !== 0 ? 'fewBlinks' : null;
}

/** What it comes to. Every power at the cornea and unrounded, but the expected over-refraction. */
export interface EyeVerdict {
  /** The lens on the eye masks an irregular cornea: the refraction does not count, and any steady turn is allowed for. */
  readonly masked: boolean;
  /** The spectacle refraction, moved to the cornea. */
  readonly fromRefraction: Refraction | null;
  /** The lens as it lay plus the over-refraction: the power that corrected the eye, whatever was measured of it. */
  readonly fromOverRefraction: ResolvedOverRefraction | null;
  /** What the over-refraction measured; null while there is none. */
  readonly parts: MeasuredParts | null;
  readonly routes: RoutesVerdict | null;
  /** What freed "measure again"; null where nothing had to, or nothing has. */
  readonly freed: Freed | null;
  /** Refraction and over-refraction weighted by their noise; null unless there are both. */
  readonly weighted: WeightedNeed | null;
  /** Over-refraction that the refraction predicts, at the trial frame: its mean alone beside one that measured no more. */
  readonly expectedOverRefraction: Refraction | null;
  /** What the eye asks for at the cornea. */
  readonly need: Refraction | null;
  /** Where its cylinder comes from; null while there is no need. */
  readonly cylinderFrom: CylinderFrom | null;
  /** Where the mark sits and what to do about it; null while it was not read. */
  readonly rotation: RotationVerdict | null;
  /** Power to look for among makeable lenses, as the verdict on the turn says; null while nothing says, or something forbids it. */
  readonly order: Refraction | null;
  readonly noOrder: NoOrder | null;
  /** The order that a prescriber's override would bring; null where there is nothing to override, or not enough to go by. */
  readonly orderDespite: Refraction | null;
  /** Power to choose the next lens by: the order, or, where this lens is to be changed, the need without its turn. */
  readonly choosing: Refraction | null;
  readonly basis: 'overRefraction' | 'refraction' | null;
}

/** SD of where the mark lies, degrees: the series' own, the reader's where too few were read. */
const turnSd = (turn: SeriesStats | null, rules: RotationRules): number =>
  turn !== null && turn.count >= FEWEST_READINGS && turn.sd !== null ? turn.sd : rules.readerNoiseDegrees;

/** Over-refraction that the refraction predicts through the lens as it lies, in the parts that are measured. */
function expectedOver(fromRefraction: Refraction, lens: Refraction, turn: Degrees, parts: MeasuredParts, vertexMm: Millimetres): Refraction {
  const left = subtractVectors(toPowerVector(fromRefraction), toPowerVector(powerOnEye(lens, turn)));
  return toSpectaclePlane(fromPowerVector(parts === 'all' ? left : { ...left, j0: 0, j45: 0 }), vertexMm);
}

/** The order as the verdict on the turn says: without the turn where it is left alone, with it otherwise. */
const orderOf = (need: Refraction, turn: Degrees, rotation: RotationVerdict | null): Refraction =>
  rotation?.code === 'leave' ? need : compensatedNeed(need, turn);

/** A lens that masks an irregular cornea makes another eye of it: what was refracted without it neither counts nor disagrees, and any steady turn is allowed for. */
function whatCounts({ refraction, rules, tried }: EyeMeasurements): Pick<EyeMeasurements, 'refraction' | 'rules'> & { readonly masked: boolean } {
  if (tried?.family.irregular !== true) return { masked: false, refraction, rules };
  return { masked: true, refraction: null, rules: { ...rules, turnOver30: 'compensate', compensateFrom: 0 } };
}

/**
 * Puts one eye's measurements together. What was measured through the lens that is on the eye decides the parts that it
 * measured, the refraction the rest. Where both measured the same and do not agree, or where the lens does not sit still, no
 * order is offered.
 * @example eyeVerdict({refraction: null, lens: null, turn: null, recovery: null, early: false, overRefraction: null, tried: null, rules}).order → null
 * @source over a lens for irregular corneas the refraction does not count, and any turn is compensated if it is steady: common practice; else see needThroughLens, routesAgree, measureAgainFreed, rotationVerdict
 */
export function eyeVerdict(eye: EyeMeasurements): EyeVerdict {
  const { lens, overRefraction, turn, picked = null } = eye;
  const { masked, refraction, rules } = whatCounts(eye);
  const turnNow = turn?.mean ?? 0;
  const turnThen = eye.overTurn ?? turnNow;
  const fromRefraction = refraction ? toCornealPlane(refraction.power, refraction.vertexMm) : null;
  const resolve = (over: MeasuredPower, rotationLeft: Degrees): ResolvedOverRefraction | null =>
    lens && resolveOverRefraction({ lens, rotationLeft, overRefraction: over.power, vertexMm: over.vertexMm });
  const fromOverRefraction = overRefraction && resolve(overRefraction, turnThen);
  const parts = overRefraction && fromOverRefraction ? measuredParts(overRefraction.power, eye.gainsLine ?? null) : null;
  const both =
    fromRefraction && fromOverRefraction && parts && lens && overRefraction
      ? { fromRefraction, fromOverRefraction: fromOverRefraction.need, parts, lens, over: overRefraction.power }
      : null;
  const routes = both && routesAgree({ ...both, lensCylinder: both.lens.cylinder, rotationSd: turnSd(turn, rules) });
  const freed =
    both && routes && !routes.agree
      ? measureAgainFreed({
          routes,
          now: { over: both.over, power: both.fromOverRefraction },
          before: (eye.overBefore ?? []).flatMap((b) => {
            const resolved = resolve(b, b.turn ?? turnThen);
            return resolved ? [{ over: b.power, power: resolved.need }] : [];
          }),
          gainsLine: eye.gainsLine ?? null,
          control: eye.control ?? 'none',
          age: eye.age ?? null,
        })
      : null;
  const disagree = routes !== null && !routes.agree && freed === null && picked === null;
  const takesRefraction = fromOverRefraction === null || parts === null || (routes !== null && !routes.agree && picked === 'refraction');
  const asks: EyesNeed | null = takesRefraction
    ? fromRefraction && { need: fromRefraction, cylinderFrom: 'refraction' }
    : needThroughLens(freed?.through ?? fromOverRefraction.need, parts, fromRefraction);
  // What is measured is the far power; an eye that is to see near is served nearer.
  const far = disagree ? null : (asks?.need ?? null);
  const need = far && eye.nearPlus ? { ...far, sphere: far.sphere + eye.nearPlus } : far;
  const rotation = turn
    ? rotationVerdict({
        stats: turn,
        recovery: eye.recovery,
        early: eye.early,
        need,
        ...(lens ? { lensCylinder: lens.cylinder } : {}),
        tried: eye.tried,
        rules,
      })
    : null;
  const noOrder = disagree ? 'routesDisagree' : need === null ? 'nothing' : againstOrder(rotation, need);
  const could = need && orderOf(need, turnNow, rotation);
  const order = noOrder === null ? could : null;
  return {
    masked,
    fromRefraction,
    fromOverRefraction,
    parts,
    routes,
    freed: freed?.by ?? null,
    weighted: both && weightedNeed(both),
    expectedOverRefraction:
      fromRefraction && lens
        ? expectedOver(fromRefraction, lens, overRefraction ? turnThen : turnNow, parts ?? 'all', overRefraction?.vertexMm ?? refraction?.vertexMm ?? 12)
        : null,
    need,
    cylinderFrom: need === null ? null : (asks?.cylinderFrom ?? null),
    rotation,
    order,
    noOrder,
    orderDespite: noOrder === null ? null : could,
    choosing: order ?? need,
    basis: order === null ? null : takesRefraction ? 'refraction' : 'overRefraction',
  };
}

/**
 * The lens of the tried family and curve that the verdict asks to order, sitting as it will; null while no order is offered
 * or nobody knows what the family makes.
 * @param nearest looks for a lens where no turn was read
 * @example lensToOrder(eyeVerdict({refraction: null, lens: null, turn: null, recovery: null, early: false, overRefraction: null, tried: null, rules}), () => null) → null
 */
export function lensToOrder(verdict: EyeVerdict, nearest: (need: Refraction) => OnEyeLens | null): OnEyeLens | null {
  const { order, need, rotation } = verdict;
  if (order === null || need === null) return null;
  if (rotation === null) return nearest(need);
  return rotation.code === 'leave' ? rotation.uncompensated : rotation.compensated;
}
