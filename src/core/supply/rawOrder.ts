import type { Modality } from '../lens/family';
import type { Refraction } from '../optics/refraction';
import type { Degrees, Millimetres } from '../units';

/**
 * What a laboratory works an order out from: the lens worn, the over-refraction and where its mark sat. It names no lens,
 * so that the turn cannot be counted twice.
 */
export interface RawOrder {
  readonly familyCode: string;
  readonly familyName: string;
  readonly modality: Modality;
  /** Power of the lens that was on the eye, D. */
  readonly worn: Refraction;
  /** Curve and diameter to make, mm. */
  readonly baseCurveMm: Millimetres;
  readonly diameterMm: Millimetres;
  /** At the trial frame, D. */
  readonly overRefraction: Refraction;
  readonly vertexMm: Millimetres;
  /** Mean, degrees, examiner's left positive. */
  readonly rotationLeft: Degrees;
}
