import { noNegativeZero, type Dioptres, type Millimetres } from '../units';
import type { Refraction } from './refraction';

/**
 * Effective power of one meridian, moved `distanceMm` towards the eye: F / (1 − d·F), d in metres.
 * A negative distance moves it away from the eye.
 * @example effectivePower(-4, 12) → -3.8168
 * @source any ophthalmic optics text
 */
export const effectivePower = (power: Dioptres, distanceMm: Millimetres): Dioptres => noNegativeZero(power / (1 - (distanceMm / 1000) * power));

function moveBy(refraction: Refraction, distanceMm: Millimetres): Refraction {
  const along = effectivePower(refraction.sphere, distanceMm);
  const across = effectivePower(refraction.sphere + refraction.cylinder, distanceMm);
  const cylinder = noNegativeZero(across - along);
  return { sphere: along, cylinder, axis: cylinder === 0 ? 180 : refraction.axis };
}

/**
 * Spectacle power as the cornea needs it. Both meridians are converted, so the cylinder changes too.
 * @param refraction at the spectacle plane, D, TABO degrees
 * @param vertexMm spectacle lens to cornea, 5 to 20 mm (not checked here: see LIMITS)
 * @returns unrounded power at the cornea
 * @example toCornealPlane({sphere: -4, cylinder: 0, axis: 180}, 12) → {sphere: -3.8168, cylinder: 0, axis: 180}
 * @source F/(1 − dF) per meridian, any ophthalmic optics text
 */
export const toCornealPlane = (refraction: Refraction, vertexMm: Millimetres): Refraction => moveBy(refraction, vertexMm);

/**
 * Power at the cornea as spectacles would need it: the inverse of `toCornealPlane`.
 * @param refraction at the cornea, D, TABO degrees
 * @param vertexMm spectacle lens to cornea, mm
 * @returns unrounded power at the spectacle plane
 * @example toSpectaclePlane({sphere: 5, cylinder: 0, axis: 180}, 12) → {sphere: 4.717, cylinder: 0, axis: 180}
 * @source F/(1 + dF) per meridian, any ophthalmic optics text
 */
export const toSpectaclePlane = (refraction: Refraction, vertexMm: Millimetres): Refraction => moveBy(refraction, -vertexMm);
