import { addPowers, fromPowerVector, toPowerVector } from '../optics/powerVector';
import type { Refraction } from '../optics/refraction';
import { toCornealPlane } from '../optics/vertex';
import type { Degrees, Dioptres, Millimetres } from '../units';
import { compensateAxis, powerOnEye } from './compensate';

/** Less cylinder than this in an over-refraction is noise: it says nothing of cylinder or axis. */
export const LEAST_OVER_CYLINDER: Dioptres = 0.5;

export interface OverRefractionInput {
  /** Labelled power of the lens on the eye. */
  readonly lens: Refraction;
  /** How it sat when the over-refraction was taken: degrees, examiner's left positive. */
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
 * The power that corrected the eye when the over-refraction was taken: the lens is put at the axis where it really lay,
 * the over-refraction is brought to the cornea, and the two are added as power vectors. Thin lenses, exact.
 * @example resolveOverRefraction({lens: {sphere: -3, cylinder: -1.75, axis: 20}, rotationLeft: 10, overRefraction: {sphere: 0.25, cylinder: -0.5, axis: 70}, vertexMm: 12}).order → {sphere: -3.09, cylinder: -1.56, axis: 28}
 * @source obliquely crossed cylinders by power vectors, Thibos, Wheeler & Horner 1997
 */
export function resolveOverRefraction(input: OverRefractionInput): ResolvedOverRefraction {
  const lying = powerOnEye(input.lens, input.rotationLeft);
  const need = addPowers(lying, toCornealPlane(input.overRefraction, input.vertexMm));
  const order = need.cylinder === 0 ? need : { ...need, axis: compensateAxis(need.axis, input.rotationLeft) };
  return { need, order };
}

/** What an over-refraction measured: the mean power alone, or cylinder and axis too. */
export type MeasuredParts = 'mean' | 'all';

/**
 * What an over-refraction says. A sphere says nothing of cylinder or axis; nor does a cylinder under 0.50 D, or one that
 * gained no line of letters.
 * @param gainsLine false where letters were read with and without it and no line was gained; null where they were not read
 * @example measuredParts({sphere: 0, cylinder: -0.25, axis: 90}, null) → 'mean'
 * @source common practice; 0.50 D: our own choice
 */
export const measuredParts = (over: Refraction, gainsLine: boolean | null): MeasuredParts =>
  Math.abs(over.cylinder) >= LEAST_OVER_CYLINDER - 1e-9 && gainsLine !== false ? 'all' : 'mean';

/** Where the cylinder of a need comes from. */
export type CylinderFrom = 'overRefraction' | 'refraction' | 'lens';

export interface EyesNeed {
  /** At the cornea, unrounded. */
  readonly need: Refraction;
  readonly cylinderFrom: CylinderFrom;
}

/**
 * What the eye asks for after an over-refraction: what was measured through the lens decides the parts that it measured,
 * the rest comes from the refraction. Without a refraction the lens as it lay stands in for the cylinder.
 * @param through lens as it lay + over-refraction, at the cornea
 * @param fromRefraction at the cornea; null when none was measured
 * @example needThroughLens({sphere: -3, cylinder: -1.75, axis: 10}, 'mean', {sphere: -3.13, cylinder: -1.59, axis: 20}).need → {sphere: -3.08, cylinder: -1.59, axis: 20}
 * @source power vectors, Thibos, Wheeler & Horner 1997
 */
export function needThroughLens(through: Refraction, parts: MeasuredParts, fromRefraction: Refraction | null): EyesNeed {
  if (parts === 'all') return { need: through, cylinderFrom: 'overRefraction' };
  if (fromRefraction === null) return { need: through, cylinderFrom: 'lens' };
  return { need: fromPowerVector({ ...toPowerVector(fromRefraction), m: toPowerVector(through).m }), cylinderFrom: 'refraction' };
}
