import type { Degrees } from '../units';

/** Fewest readings from which anything is said. */
export const FEWEST_READINGS = 3;

export interface SeriesStats {
  readonly count: number;
  /** Degrees, examiner's left positive. */
  readonly mean: Degrees;
  /** Sample standard deviation of the readings; null with fewer than two. */
  readonly sd: Degrees | null;
  /** The lens's own scatter: the reader's noise taken out. */
  readonly lensSd: Degrees | null;
  /** Least-squares slope, degrees a blink. */
  readonly slope: Degrees | null;
}

/**
 * A series of readings after blinks. Steadiness is a standard deviation, never the range: more readings would make every
 * lens look worse.
 * @param readings degrees, examiner's left positive, in the order read; at least one
 * @param readerNoise SD of one reading, degrees
 * @example seriesStats([10, 8, 11, 10, 11], 2).mean → 10
 * @source mean, SD and least squares: statistics; noise taken out in squares: our own choice
 */
export function seriesStats(readings: readonly Degrees[], readerNoise: Degrees): SeriesStats {
  const n = readings.length;
  const mean = n === 0 ? 0 : readings.reduce((a, b) => a + b, 0) / n;
  if (n < 2) return { count: n, mean, sd: null, lensSd: null, slope: null };
  const sd = Math.sqrt(readings.reduce((sum, r) => sum + (r - mean) ** 2, 0) / (n - 1));
  const middle = (n - 1) / 2;
  let above = 0;
  let below = 0;
  readings.forEach((r, i) => {
    above += (i - middle) * (r - mean);
    below += (i - middle) ** 2;
  });
  return { count: n, mean, sd, lensSd: Math.sqrt(Math.max(0, sd * sd - readerNoise * readerNoise)), slope: above / below };
}

/** What a practice calls unsteady, drifting and slow. */
export interface SteadinessRules {
  readonly readerNoiseDegrees: Degrees;
  readonly unsteadyDegrees: Degrees;
  readonly driftDegrees: Degrees;
  readonly recoveryBlinks: number;
}

export type Unsteady = 'unsteady' | 'drifting' | 'slow';

/**
 * Why a lens does not sit still; null when it does, or when too little was read to say so. A slope is judged from five
 * readings on: a line through three is mostly noise.
 * @param recovery blinks until back within 5° after being pushed 45° off; null when not tried
 * @example unsteadiness(seriesStats([10, 8, 11, 10, 11], 2), null, rules) → null
 * @source our own choice, practice settings
 */
export function unsteadiness(stats: SeriesStats, recovery: number | null, rules: SteadinessRules): Unsteady | null {
  if (stats.count >= FEWEST_READINGS && stats.lensSd !== null && stats.lensSd > rules.unsteadyDegrees + 1e-9) return 'unsteady';
  if (stats.count >= DRIFT_READINGS && stats.slope !== null && Math.abs(stats.slope) > rules.driftDegrees + 1e-9) return 'drifting';
  if (recovery !== null && recovery > rules.recoveryBlinks) return 'slow';
  return null;
}
/** Readings from which a drift is judged. */
export const DRIFT_READINGS = 5;

/**
 * What a turn costs a cylinder that is otherwise right: a cylinder of 2·C·sin θ, with a blur strength of C·sin θ. The
 * cylinder is twice the blur: each figure says which of the two it is.
 * @param cylinder D, sign ignored
 * @example turnCost(-2.25, 10) → {cylinder: 0.781, blur: 0.391}
 * @source obliquely crossed cylinders
 */
export function turnCost(cylinder: number, turn: Degrees): { readonly cylinder: number; readonly blur: number } {
  const blur = Math.abs(cylinder * Math.sin((turn * Math.PI) / 180));
  return { cylinder: 2 * blur, blur };
}
