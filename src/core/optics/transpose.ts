import { noNegativeZero, wrapAxis } from '../units';
import type { Refraction } from './refraction';

/**
 * The same power written the other way: S + C, −C, axis ± 90. Twice is the identity.
 * @param refraction either notation, D and TABO degrees
 * @returns the other notation; a zero cylinder keeps axis 180. No errors.
 * @example transpose({sphere: -3.25, cylinder: -1.75, axis: 20}) → {sphere: -5, cylinder: 1.75, axis: 110}
 * @source common practice; any ophthalmic optics text
 */
export function transpose(refraction: Refraction): Refraction {
  const { sphere, cylinder, axis } = refraction;
  if (cylinder === 0) return { sphere, cylinder: 0, axis: 180 };
  return { sphere: noNegativeZero(sphere + cylinder), cylinder: -cylinder, axis: wrapAxis(axis + 90) };
}

/**
 * Minus-cylinder form of a power in either notation.
 * @example toMinusCylinder({sphere: -5, cylinder: 1.75, axis: 110}) → {sphere: -3.25, cylinder: -1.75, axis: 20}
 * @source common practice
 */
export function toMinusCylinder(refraction: Refraction): Refraction {
  if (refraction.cylinder > 0) return transpose(refraction);
  if (refraction.cylinder === 0) return { sphere: noNegativeZero(refraction.sphere), cylinder: 0, axis: 180 };
  return { ...refraction, axis: wrapAxis(refraction.axis) };
}
