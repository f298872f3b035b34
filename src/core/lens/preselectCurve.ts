import type { Millimetres } from '../units';
import type { CurveDiameter } from './family';

/** Mean keratometry (D) below which the flatter of two curves is preselected, and above which the steeper. Our own choice. */
export const FLAT_K = 41;
export const STEEP_K = 46;

export interface Preselected<C extends CurveDiameter> {
  readonly curve: C;
  readonly why: 'onlyOne' | 'noK' | 'flatK' | 'steepK' | 'middleK';
}

/**
 * The base curve and diameter to begin with: of several curves the flattest for a flat cornea, the steepest for a
 * steep one, else the family's first. Keratometry foretells soft fit weakly: the fit on the eye decides.
 * @param curves what the power is made in, the family's first choice first; at least one
 * @param meanK mean of both keratometer readings, D; null when not measured
 * @example preselectCurve([{baseCurve: 8.4, diameter: 14.2}, {baseCurve: 8.8, diameter: 14.2}], 40.5)?.curve.baseCurve → 8.8
 * @source K predicts soft fit weakly: Young 1992, from memory; thresholds our own
 */
export function preselectCurve<C extends CurveDiameter>(curves: readonly C[], meanK: number | null): Preselected<C> | null {
  const [first] = curves;
  if (!first) return null;
  const distinct = new Set(curves.map((c) => c.baseCurve)).size;
  if (distinct === 1) return { curve: first, why: 'onlyOne' };
  if (meanK === null) return { curve: first, why: 'noK' };
  const by = (better: (a: Millimetres, b: Millimetres) => boolean): C => curves.reduce((best, c) => (better(c.baseCurve, best.baseCurve) ? c : best), first);
  if (meanK < FLAT_K) return { curve: by((a, b) => a > b), why: 'flatK' };
  if (meanK > STEEP_K) return { curve: by((a, b) => a < b), why: 'steepK' };
  return { curve: first, why: 'middleK' };
}
