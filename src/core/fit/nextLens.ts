import type { CurveDiameter } from '../lens/family';
import type { Millimetres } from '../units';
import type { FitVerdict } from './fitVerdict';

/**
 * Depth of a spherical bowl: r − √(r² − (D/2)²). Labelled curves do not compare across families: use it within one.
 * @param baseCurve r, mm
 * @param diameter D, mm
 * @returns mm; null where the circle is too small for the diameter
 * @example sagitta(8.6, 14.2) → 3.747
 * @source geometry of the circle
 */
export function sagitta(baseCurve: Millimetres, diameter: Millimetres): Millimetres | null {
  const half = diameter / 2;
  return baseCurve > half && half > 0 ? baseCurve - Math.sqrt(baseCurve * baseCurve - half * half) : null;
}

export type CurveStep = 'steeper' | 'flatter' | 'larger' | 'smaller' | 'deeper' | 'shallower';
export interface NextCurve<C extends CurveDiameter> {
  readonly curve: C;
  readonly step: CurveStep;
  readonly sag: Millimetres;
  /** Against the lens that was tried; positive = deeper, so tighter. */
  readonly sagChange: Millimetres;
}

function stepOf(from: CurveDiameter, to: CurveDiameter, deeper: boolean): CurveStep {
  if (from.diameter === to.diameter) return to.baseCurve < from.baseCurve ? 'steeper' : 'flatter';
  if (from.baseCurve === to.baseCurve) return to.diameter > from.diameter ? 'larger' : 'smaller';
  return deeper ? 'deeper' : 'shallower';
}

/**
 * Curves of the same family to try next, the smallest change first: deeper ones for a loose lens, shallower for a tight.
 * Empty: the family has none, so another family is needed.
 * @param tried the curve on the eye
 * @param curves what the power is made in
 * @example nextCurves({baseCurve: 8.9, diameter: 14.2}, [{baseCurve: 8.6, diameter: 14.2}], 'loose')[0].step → 'steeper'
 * @source loose: steeper or larger; tight: flatter or smaller: common practice
 */
export function nextCurves<C extends CurveDiameter>(tried: CurveDiameter, curves: readonly C[], verdict: 'loose' | 'tight'): NextCurve<C>[] {
  const before = sagitta(tried.baseCurve, tried.diameter);
  if (before === null) return [];
  const seen = new Set<string>();
  const out: NextCurve<C>[] = [];
  for (const curve of curves) {
    const key = `${curve.baseCurve}|${curve.diameter}`;
    const sag = sagitta(curve.baseCurve, curve.diameter);
    if (sag === null || seen.has(key)) continue;
    seen.add(key);
    const sagChange = sag - before;
    const deeper = sagChange > 1e-9;
    if (verdict === 'loose' ? !deeper : sagChange > -1e-9) continue;
    out.push({ curve, step: stepOf(tried, curve, deeper), sag, sagChange });
  }
  return out.sort((a, b) => Math.abs(a.sagChange) - Math.abs(b.sagChange) || a.curve.diameter - b.curve.diameter);
}

/** What decides the next lens for one that does not sit still: `judge` is to look at the fit first. */
export type RefitStep = 'loose' | 'tight' | 'stabilisation' | 'judge';

/**
 * How to refit a lens that is unsteady, drifts or comes back slowly: a loose one steeper or larger, a tight one flatter or
 * smaller; one that fits needs another stabilisation, so another family.
 * @example refitStep('fits') → 'stabilisation'
 * @source common practice
 */
export function refitStep(fit: FitVerdict['verdict']): RefitStep {
  if (fit === 'loose' || fit === 'tight') return fit;
  return fit === 'fits' ? 'stabilisation' : 'judge';
}
