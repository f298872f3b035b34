import type { Degrees, Dioptres } from '../units';

/**
 * A sphero-cylindrical power in minus-cylinder form, at a plane that the context names.
 * `axis` is in (0, 180], and 180 where the cylinder is 0.
 */
export interface Refraction {
  /** Power along `axis` (D). */
  readonly sphere: Dioptres;
  /** Power added across the axis (D), 0 or negative. */
  readonly cylinder: Dioptres;
  /** TABO degrees. */
  readonly axis: Degrees;
}

export const PLANO: Refraction = { sphere: 0, cylinder: 0, axis: 180 };

/** Mean power, sphere + cylinder / 2 (D). @example sphericalEquivalent({sphere: -3, cylinder: -1.5, axis: 20}) → -3.75 */
export const sphericalEquivalent = (r: Refraction): Dioptres => r.sphere + r.cylinder / 2;
