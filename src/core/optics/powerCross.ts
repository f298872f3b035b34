import { wrapAxis, type Degrees, type Dioptres, type Millimetres } from '../units';
import type { Refraction } from './refraction';

/** Power along one meridian. */
export interface MeridianPower {
  /** D */
  readonly power: Dioptres;
  /** The meridian the power acts along, TABO degrees. */
  readonly along: Degrees;
}

/**
 * Two powers on a cross, 90 degrees apart, as a prescription. The axis is the meridian of the more positive power.
 * @example fromPowerCross({power: -1, along: 180}, {power: -2.25, along: 90}) → {sphere: -1, cylinder: -1.25, axis: 180}
 * @source common practice
 */
export function fromPowerCross(a: MeridianPower, b: MeridianPower): Refraction {
  const [plus, minus] = a.power >= b.power ? [a, b] : [b, a];
  const cylinder = minus.power - plus.power;
  return { sphere: plus.power, cylinder, axis: cylinder === 0 ? 180 : wrapAxis(plus.along) };
}

/**
 * Keratometer radius as power, 337.5 / r (D).
 * @param radiusMm front corneal radius, mm
 * @example keratometerPower(7.5) → 45
 * @source keratometer constant 1.3375, common practice
 */
export const keratometerPower = (radiusMm: Millimetres): Dioptres => 337.5 / radiusMm;
