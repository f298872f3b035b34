import { fromPowerVector, subtractVectors, toPowerVector } from '../optics/powerVector';
import type { Refraction } from '../optics/refraction';
import { toCornealPlane, toSpectaclePlane } from '../optics/vertex';
import { powerOnEye } from '../rotation/compensate';
import { resolveOverRefraction, type ResolvedOverRefraction } from '../rotation/resolveOverRefraction';
import { compensatedNeed, rotationVerdict, type RotationRules, type RotationVerdict, type TriedFamily } from '../rotation/rotationVerdict';
import { routesAgree, type RoutesVerdict } from '../rotation/routesAgree';
import { FEWEST_READINGS, type SeriesStats } from '../rotation/series';
import type { Millimetres } from '../units';

/** A power measured at the spectacle or trial-frame plane. */
export interface MeasuredPower {
  readonly power: Refraction;
  readonly vertexMm: Millimetres;
}

/** What has been measured on one eye. */
export interface EyeMeasurements {
  readonly refraction: MeasuredPower | null;
  /** Labelled power of the confirmed lens on the eye. */
  readonly lens: Refraction | null;
  /** Where its mark sits, over the blinks read; null when not read. */
  readonly turn: SeriesStats | null;
  /** Blinks until back after a push. */
  readonly recovery: number | null;
  /** The mark was read before the lens had settled. */
  readonly early: boolean;
  readonly overRefraction: MeasuredPower | null;
  /** What the lens's family makes; null when it is not in the library. */
  readonly tried: TriedFamily | null;
  readonly rules: RotationRules;
}

/** Why no order is offered. */
export type NoOrder = 'nothing' | 'routesDisagree' | 'notSteadyYet' | 'refit' | 'changeDesign';

/** The rule that refuses an order, by why none is offered. */
export const NO_ORDER_RULES = {
  nothing: 'nothingMeasured',
  routesDisagree: 'measureAgain',
  notSteadyYet: 'notSteadyYet',
  refit: 'refitFirst',
  changeDesign: 'changeDesign',
} as const satisfies Readonly<Record<NoOrder, string>>;

/** What the rotation says against an order. A lens that has not settled may still come to rest: then it is read again. */
function againstOrder(rotation: RotationVerdict | null): 'notSteadyYet' | 'refit' | 'changeDesign' | null {
  if (rotation?.code === 'refit' || rotation?.code === 'changeDesign') return rotation.code;
  const loose = rotation?.why === 'unsteady' || rotation?.why === 'drifting' || rotation?.why === 'slow';
  return loose ? 'notSteadyYet' : null;
}

/** What it comes to. Every power at the cornea and unrounded, but the expected over-refraction. */
export interface EyeVerdict {
  /** Route 1: the spectacle refraction, moved to the cornea. */
  readonly fromRefraction: Refraction | null;
  /** Route 2: the lens as it lies plus the over-refraction. */
  readonly fromOverRefraction: ResolvedOverRefraction | null;
  readonly routes: RoutesVerdict | null;
  /** Over-refraction that route 1 predicts, at the trial frame. */
  readonly expectedOverRefraction: Refraction | null;
  /** What the eye asks for at the cornea. */
  readonly need: Refraction | null;
  /** Where the mark sits and what to do about it; null while it was not read. */
  readonly rotation: RotationVerdict | null;
  /** Power to look for among makeable lenses, turn allowed for; null while nothing says, or something forbids it. */
  readonly order: Refraction | null;
  readonly noOrder: NoOrder | null;
  /** Power to choose the next lens by: the order, or, where this lens is to be changed, the need without its turn. */
  readonly choosing: Refraction | null;
  readonly basis: 'overRefraction' | 'refraction' | null;
}

/** SD of where the mark lies, degrees: the series' own, the reader's where too few were read. */
const turnSd = (turn: SeriesStats | null, rules: RotationRules): number =>
  turn !== null && turn.count >= FEWEST_READINGS && turn.sd !== null ? turn.sd : rules.readerNoiseDegrees;

/**
 * Puts one eye's measurements together. The over-refraction through the lens that is on the eye decides where both
 * routes agree; where they do not, or where the lens does not sit still, no order is offered.
 * @example eyeVerdict({refraction: null, lens: null, turn: null, recovery: null, early: false, overRefraction: null, tried: null, rules}).order → null
 * @source see resolveOverRefraction, routesAgree, rotationVerdict
 */
export function eyeVerdict(eye: EyeMeasurements): EyeVerdict {
  const rotationLeft = eye.turn?.mean ?? 0;
  const fromRefraction = eye.refraction ? toCornealPlane(eye.refraction.power, eye.refraction.vertexMm) : null;
  const fromOverRefraction =
    eye.lens && eye.overRefraction
      ? resolveOverRefraction({
          lens: eye.lens,
          rotationLeft,
          overRefraction: eye.overRefraction.power,
          vertexMm: eye.overRefraction.vertexMm,
        })
      : null;
  const routes =
    fromRefraction && fromOverRefraction && eye.lens
      ? routesAgree({
          fromRefraction,
          fromOverRefraction: fromOverRefraction.need,
          lensCylinder: eye.lens.cylinder,
          rotationSd: turnSd(eye.turn, eye.rules),
        })
      : null;
  const expectedOverRefraction =
    fromRefraction && eye.lens
      ? toSpectaclePlane(
          fromPowerVector(subtractVectors(toPowerVector(fromRefraction), toPowerVector(powerOnEye(eye.lens, rotationLeft)))),
          eye.overRefraction?.vertexMm ?? eye.refraction?.vertexMm ?? 12,
        )
      : null;
  const disagree = routes !== null && !routes.agree;
  const need = disagree ? null : (fromOverRefraction?.need ?? fromRefraction);
  const rotation = eye.turn ? rotationVerdict({ stats: eye.turn, recovery: eye.recovery, early: eye.early, need, tried: eye.tried, rules: eye.rules }) : null;
  const noOrder = disagree ? 'routesDisagree' : need === null ? 'nothing' : againstOrder(rotation);
  const order = noOrder === null && need ? compensatedNeed(need, rotationLeft) : null;
  return {
    fromRefraction,
    fromOverRefraction,
    routes,
    expectedOverRefraction,
    need,
    rotation,
    order,
    noOrder,
    choosing: order ?? (disagree ? null : need),
    basis: order === null ? null : fromOverRefraction ? 'overRefraction' : 'refraction',
  };
}
