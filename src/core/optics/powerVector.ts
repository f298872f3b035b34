import { noNegativeZero, wrapAxis, type Dioptres } from '../units';
import type { Refraction } from './refraction';

/** A power as three independent numbers (D), which add and subtract like any vector. */
export interface PowerVector {
  /** Mean sphere. */
  readonly m: Dioptres;
  /** Jackson cross cylinder at 180/90. */
  readonly j0: Dioptres;
  /** Jackson cross cylinder at 45/135. */
  readonly j45: Dioptres;
}

const RADIANS = Math.PI / 180;

/**
 * M = S + C/2, J0 = −(C/2)·cos 2α, J45 = −(C/2)·sin 2α.
 * @param refraction D, TABO degrees, either cylinder sign
 * @example toPowerVector({sphere: -3, cylinder: -2.25, axis: 90}) → {m: -4.125, j0: -1.125, j45: 0}
 * @source Thibos, Wheeler & Horner 1997
 */
export function toPowerVector(refraction: Refraction): PowerVector {
  const { sphere, cylinder, axis } = refraction;
  const half = -cylinder / 2;
  // Exact at the four axes where a tiny sine would otherwise break ties that are real.
  const twice = (2 * axis) % 360;
  const cos = twice === 0 ? 1 : twice === 180 ? -1 : twice === 90 || twice === 270 ? 0 : Math.cos(twice * RADIANS);
  const sin = twice === 0 || twice === 180 ? 0 : twice === 90 ? 1 : twice === 270 ? -1 : Math.sin(twice * RADIANS);
  return { m: noNegativeZero(sphere + cylinder / 2), j0: noNegativeZero(half * cos), j45: noNegativeZero(half * sin) };
}

/**
 * Back to minus cylinder: C = −2√(J0² + J45²), S = M − C/2, α = ½·atan2(J45, J0).
 * @param vector D
 * @example fromPowerVector({m: -4.125, j0: -1.125, j45: 0}) → {sphere: -3, cylinder: -2.25, axis: 90}
 * @source Thibos, Wheeler & Horner 1997
 */
export function fromPowerVector(vector: PowerVector): Refraction {
  const half = Math.hypot(vector.j0, vector.j45);
  if (half < 1e-9) return { sphere: noNegativeZero(vector.m), cylinder: 0, axis: 180 };
  return {
    sphere: noNegativeZero(vector.m + half),
    cylinder: -2 * half,
    axis: wrapAxis(Math.atan2(vector.j45, vector.j0) / RADIANS / 2),
  };
}

/**
 * Length of the power vector, √(M² + J0² + J45²) (D): how much blur a power makes, whatever its kind.
 * @example blurStrength({m: 0.3, j0: 0.4, j45: 0}) → 0.5
 * @source Thibos, Wheeler & Horner 1997
 */
export const blurStrength = ({ m, j0, j45 }: PowerVector): Dioptres => Math.sqrt(m * m + j0 * j0 + j45 * j45);

/** a + b, each component (D). @example addVectors({m: 1, j0: 0, j45: 0}, {m: 0, j0: 1, j45: 0}) → {m: 1, j0: 1, j45: 0} */
export const addVectors = (a: PowerVector, b: PowerVector): PowerVector => ({
  m: a.m + b.m,
  j0: a.j0 + b.j0,
  j45: a.j45 + b.j45,
});

/** a − b, each component (D). @example subtractVectors({m: 1, j0: 0, j45: 0}, {m: 1, j0: 1, j45: 0}) → {m: 0, j0: -1, j45: 0} */
export const subtractVectors = (a: PowerVector, b: PowerVector): PowerVector => ({
  m: noNegativeZero(a.m - b.m),
  j0: noNegativeZero(a.j0 - b.j0),
  j45: noNegativeZero(a.j45 - b.j45),
});

/**
 * Two powers held together (thin lenses in contact), cylinders crossed at any angle (D, TABO degrees).
 * @example addPowers({sphere: 1, cylinder: 0, axis: 180}, {sphere: -3, cylinder: -1, axis: 90}) → {sphere: -2, cylinder: -1, axis: 90}
 * @source Thibos, Wheeler & Horner 1997; obliquely crossed cylinders, any ophthalmic optics text
 */
export const addPowers = (a: Refraction, b: Refraction): Refraction => fromPowerVector(addVectors(toPowerVector(a), toPowerVector(b)));

/**
 * Blur strength of the difference of two powers (D).
 * @example blurBetween({sphere: -3, cylinder: 0, axis: 180}, {sphere: -3.5, cylinder: 0, axis: 180}) → 0.5
 * @source Thibos, Wheeler & Horner 1997
 */
export const blurBetween = (a: Refraction, b: Refraction): Dioptres => blurStrength(subtractVectors(toPowerVector(a), toPowerVector(b)));
