import { blurBetween } from '../optics/powerVector';
import type { Refraction } from '../optics/refraction';
import type { Degrees, Dioptres } from '../units';

/** Repeatability of one over-refraction as blur strength (D). Our own choice. */
export const OVER_REFRACTION_NOISE = 0.18;
/** Gaps up to this never ask to measure again (D). Our own choice. */
export const LEAST_GATE = 0.5;
/** What one person reading one mark is taken to be off by (degrees, SD). Our own choice; a setting of the practice. */
export const READER_NOISE_DEGREES = 2;

export interface RoutesInput {
  /** Route 1: the spectacle refraction brought to the cornea. */
  readonly fromRefraction: Refraction;
  /** Route 2: lens as it lies + over-refraction. */
  readonly fromOverRefraction: Refraction;
  /** Cylinder of the lens on the eye (D): a turn read wrong costs C·sin(error). */
  readonly lensCylinder: Dioptres;
  /** SD of the rotation reading in degrees. */
  readonly rotationSd: Degrees;
}

export interface RoutesVerdict {
  /** Blur strength between the two needs (D). */
  readonly gap: Dioptres;
  /** Gap above which the tool asks to measure again (D). */
  readonly gate: Dioptres;
  readonly noise: Dioptres;
  readonly agree: boolean;
}

/**
 * Do the two ways to the eye's need agree? The gate is max(0.50 D, twice the combined measuring noise), so that a
 * strong cylinder read by eye does not cry wolf.
 * @example routesAgree({fromRefraction: need, fromOverRefraction: need, lensCylinder: -1.75, rotationSd: 2}).agree → true
 * @source our own choice
 */
export function routesAgree(input: RoutesInput): RoutesVerdict {
  const turnNoise = Math.abs(input.lensCylinder) * Math.sin((input.rotationSd * Math.PI) / 180);
  const noise = Math.hypot(OVER_REFRACTION_NOISE, turnNoise);
  const gate = Math.max(LEAST_GATE, 2 * noise);
  const gap = blurBetween(input.fromRefraction, input.fromOverRefraction);
  return { gap, gate, noise, agree: gap <= gate + 1e-9 };
}
