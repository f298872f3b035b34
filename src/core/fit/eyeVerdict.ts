import { fromPowerVector, subtractVectors, toPowerVector } from '../optics/powerVector';
import type { Refraction } from '../optics/refraction';
import { toCornealPlane, toSpectaclePlane } from '../optics/vertex';
import { compensateAxis, powerOnEye } from '../rotation/compensate';
import { resolveOverRefraction, type ResolvedOverRefraction } from '../rotation/resolveOverRefraction';
import { routesAgree, type RoutesVerdict } from '../rotation/routesAgree';
import type { Degrees, Millimetres } from '../units';

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
  /** Degrees, examiner's left positive. */
  readonly rotationLeft: Degrees | null;
  readonly overRefraction: MeasuredPower | null;
  /** SD of one reading of the mark, degrees. */
  readonly readerNoise: Degrees;
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
  /** Power to look for among makeable lenses, turn compensated; null while nothing says, or the routes disagree. */
  readonly order: Refraction | null;
  readonly basis: 'overRefraction' | 'refraction' | null;
}

/**
 * Puts one eye's measurements together. The over-refraction through the lens that is on the eye decides where both
 * routes agree; where they do not, no order is offered until something is measured again.
 * @example eyeVerdict({refraction: null, lens: null, rotationLeft: null, overRefraction: null, readerNoise: 2}).order → null
 * @source see resolveOverRefraction, routesAgree
 */
export function eyeVerdict(eye: EyeMeasurements): EyeVerdict {
  const rotationLeft = eye.rotationLeft ?? 0;
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
          rotationSd: eye.readerNoise,
        })
      : null;
  const expectedOverRefraction =
    fromRefraction && eye.lens
      ? toSpectaclePlane(
          fromPowerVector(subtractVectors(toPowerVector(fromRefraction), toPowerVector(powerOnEye(eye.lens, rotationLeft)))),
          eye.overRefraction?.vertexMm ?? eye.refraction?.vertexMm ?? 12,
        )
      : null;
  const compensated =
    fromRefraction && (fromRefraction.cylinder === 0 ? fromRefraction : { ...fromRefraction, axis: compensateAxis(fromRefraction.axis, rotationLeft) });
  const disagree = routes !== null && !routes.agree;
  const order = disagree ? null : (fromOverRefraction?.order ?? compensated);
  return {
    fromRefraction,
    fromOverRefraction,
    routes,
    expectedOverRefraction,
    order,
    basis: order === null ? null : fromOverRefraction ? 'overRefraction' : 'refraction',
  };
}
