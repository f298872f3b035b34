import { wrapAxis, type Degrees } from '../units';
import type { Refraction } from '../optics/refraction';

/**
 * The axis to order so that a lens which turns comes to lie right: left add, right subtract, to the axis of the
 * *refraction*.
 * @param axis what the eye asks, TABO degrees
 * @param rotationLeft where the bottom mark sits: positive to the examiner's left (clockwise), negative right
 * @returns (0, 180]
 * @example compensateAxis(172, 12) → 4
 * @source common practice ("left add, right subtract")
 */
export const compensateAxis = (axis: Degrees, rotationLeft: Degrees): Degrees => wrapAxis(axis + rotationLeft);

/**
 * What a lens gives the eye when it sits turned: its axis moves with its mark, clockwise = lower axis.
 * @param lens labelled power, D, TABO degrees
 * @param rotationLeft degrees, examiner's left positive
 * @example powerOnEye({sphere: -3, cylinder: -1.75, axis: 20}, 10) → {sphere: -3, cylinder: -1.75, axis: 10}
 * @source geometry of the TABO scale
 */
export const powerOnEye = (lens: Refraction, rotationLeft: Degrees): Refraction =>
  lens.cylinder === 0 ? { ...lens, axis: 180 } : { ...lens, axis: wrapAxis(lens.axis - rotationLeft) };
