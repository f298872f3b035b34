import { addPowers } from '../optics/powerVector';
import type { Refraction } from '../optics/refraction';
import { toCornealPlane } from '../optics/vertex';
import type { Degrees, Millimetres } from '../units';
import { compensateAxis, powerOnEye } from './compensate';

export interface OverRefractionInput {
  /** Labelled power of the lens on the eye. */
  readonly lens: Refraction;
  /** Degrees, examiner's left positive. */
  readonly rotationLeft: Degrees;
  /** At the trial frame, D, TABO degrees. */
  readonly overRefraction: Refraction;
  /** Trial frame to cornea, mm. */
  readonly vertexMm: Millimetres;
}

/** Both at the cornea, unrounded. */
export interface ResolvedOverRefraction {
  /** What the eye asks for. */
  readonly need: Refraction;
  /** The same with the turn compensated: what to look for among makeable lenses. */
  readonly order: Refraction;
}

/**
 * What the eye needs, from the lens that is on it and the over-refraction through it: the lens is put at the axis
 * where it really lies, the over-refraction is brought to the cornea, and the two are added as power vectors.
 * Thin lenses, exact.
 * @example resolveOverRefraction({lens: {sphere: -3, cylinder: -1.75, axis: 20}, rotationLeft: 10, overRefraction: {sphere: 0.25, cylinder: -0.5, axis: 70}, vertexMm: 12}).order → {sphere: -3.09, cylinder: -1.56, axis: 28}
 * @source obliquely crossed cylinders by power vectors, Thibos, Wheeler & Horner 1997
 */
export function resolveOverRefraction(input: OverRefractionInput): ResolvedOverRefraction {
  const lying = powerOnEye(input.lens, input.rotationLeft);
  const need = addPowers(lying, toCornealPlane(input.overRefraction, input.vertexMm));
  const order = need.cylinder === 0 ? need : { ...need, axis: compensateAxis(need.axis, input.rotationLeft) };
  return { need, order };
}
