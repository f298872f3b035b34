import type { Refraction } from '../optics/refraction';
import { toPowerVector } from '../optics/powerVector';
import type { Degrees, Dioptres, Millimetres } from '../units';
import type { Stabilisation } from './family';

/** How the marks of a kind of stabilisation are taken to sit before any lens was on this eye. */
export interface RotationPrior {
  /** Mean, degrees; positive to the examiner's left. */
  readonly mean: Degrees;
  readonly sd: Degrees;
}

/** Our own choice, shown as assumed, until a practice's own figures exist. */
export const ROTATION_PRIORS: Readonly<Record<Stabilisation, RotationPrior>> = {
  prismBallast: { mean: 0, sd: 6 },
  thinZones: { mean: 0, sd: 7 },
  fourPoint: { mean: 0, sd: 5 },
};

const RADIANS = Math.PI / 180;

/**
 * Blur strength to expect when a lens may sit turned: √E[u²], with
 * E[u²] = ΔM² + |Jneed|² + |Jlens|² − 2·e^(−2σ²)·Jneed·Jlens, σ in radians, the lens at its mean turn.
 * @param need power the eye asks for at the cornea (D, TABO degrees)
 * @param lens power as made
 * @param prior mean turn and its SD, degrees; a spherical lens has none
 * @example expectedBlur({sphere: -3, cylinder: -2.25, axis: 180}, {sphere: -3, cylinder: -2.25, axis: 180}, {mean: 0, sd: 10}) → 0.387
 * @source our own, from power vectors (Thibos 1997) and a normal distribution of the turn
 */
export function expectedBlur(need: Refraction, lens: Refraction, prior: RotationPrior): Dioptres {
  const n = toPowerVector(need);
  // A mark to the examiner's left is clockwise: the axis moves down by as much.
  const l = toPowerVector({ ...lens, axis: lens.axis - prior.mean });
  const shrink = Math.exp(-2 * (prior.sd * RADIANS) ** 2);
  const dm = n.m - l.m;
  const square = dm * dm + n.j0 ** 2 + n.j45 ** 2 + l.j0 ** 2 + l.j45 ** 2 - 2 * shrink * (n.j0 * l.j0 + n.j45 * l.j45);
  return Math.sqrt(Math.max(0, square));
}

/** One line of letters for each of these dioptres of blur, for a middle pupil. Common practice; an estimate. */
export const BLUR_PER_LINE = 0.25;

/** Lines of letters (0.1 logMAR each) that a blur is likely to cost. @example linesLost(0.5) → 2 */
export const linesLost = (blur: Dioptres): number => blur / BLUR_PER_LINE;

/** Pupil taken while none was measured, mm: a middle one. Our own choice. */
export const MIDDLE_PUPIL_MM: Millimetres = 4;

/**
 * Smallest detail to be told apart through a blur, minutes of arc: 0.65 × pupil × blur. Beside the lines of letters, as an
 * estimate; 1′ is 20/20.
 * @param pupilMm pupil, mm
 * @param blur blur strength, D
 * @example blurDetail(4, 1) → 2.6
 * @source Smith 1991, from memory
 */
export const blurDetail = (pupilMm: Millimetres, blur: Dioptres): number => 0.65 * pupilMm * blur;

/**
 * Diameter of the disc that a point makes out of focus, minutes of arc: 3.44 × pupil × defocus.
 * @param pupilMm pupil, mm
 * @param defocus D, sign ignored
 * @example blurDisc(3, 1) → 10.31
 * @source geometrical optics: 1 mm × 1 D is 1/1000 rad
 */
export const blurDisc = (pupilMm: Millimetres, defocus: Dioptres): number => (Math.abs(pupilMm * defocus) / 1000) * (180 / Math.PI) * 60;
