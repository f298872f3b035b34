import type { Degrees, Dioptres } from '../units';

/** Fewest readings from which anything is said. */
export const FEWEST_READINGS = 3;
/** Readings asked for when the first three scatter; a slope is judged from so many on. */
export const FULL_SERIES = 5;
/** Three readings suffice while their SD stays under this share of the limit. Simulated: docs/science/formulas.md. */
export const EARLY_SHARE = 0.6;
/** Blinks over which a drift is reckoned: as many as lie between the first and the fifth reading. */
const DRIFT_BLINKS = 4;
/**
 * A slope counts only past so many of its own standard errors, by the readings it rests on: 95 % of Student's t with two
 * degrees of freedom fewer. Twice the error would be the same for many readings; for five it calls too many steady lenses
 * drifting. Source: tables of Student's t, from memory.
 */
const SLOPE_ERRORS = [3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228] as const;
const slopeErrors = (count: number): number => SLOPE_ERRORS[Math.min(count - FULL_SERIES, SLOPE_ERRORS.length - 1)] ?? SLOPE_ERRORS[0];
/** Whatever the cylinder, an SD under the one is never unsteady and over the other always is, degrees. Our own choice. */
export const STEADINESS_BOUNDS = { least: 4, most: 12 } as const;

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
  /** Standard error of the slope, degrees a blink; null with fewer than three readings. */
  readonly slopeError: Degrees | null;
}

/**
 * A series of readings after blinks. Steadiness is a standard deviation, never the range: more readings would make every
 * lens look worse.
 * @param readings degrees, examiner's left positive, in the order read; at least one
 * @param readerNoise SD of one reading, degrees
 * @example seriesStats([10, 8, 11, 10, 11], 2).mean → 10
 * @source mean, SD, least squares and the error of a slope: statistics; noise taken out in squares: our own choice
 */
export function seriesStats(readings: readonly Degrees[], readerNoise: Degrees): SeriesStats {
  const n = readings.length;
  const mean = n === 0 ? 0 : readings.reduce((a, b) => a + b, 0) / n;
  if (n < 2) return { count: n, mean, sd: null, lensSd: null, slope: null, slopeError: null };
  const total = readings.reduce((sum, r) => sum + (r - mean) ** 2, 0);
  const sd = Math.sqrt(total / (n - 1));
  const middle = (n - 1) / 2;
  let above = 0;
  let below = 0;
  readings.forEach((r, i) => {
    above += (i - middle) * (r - mean);
    below += (i - middle) ** 2;
  });
  const unexplained = Math.max(0, total - (above * above) / below);
  return {
    count: n,
    mean,
    sd,
    lensSd: Math.sqrt(Math.max(0, sd * sd - readerNoise * readerNoise)),
    slope: above / below,
    slopeError: n < 3 ? null : Math.sqrt(unexplained / (n - 2) / below),
  };
}

/**
 * Scatter of the turn at which a cylinder loses a given blur, degrees: σ with C·√((1 − e^(−2σ²))/2) = blur, held between
 * 4° and 12°.
 * @param cylinder of the eye's need, D, sign ignored
 * @param blur rms blur strength that is too much, D
 * @example steadinessLimit(-1.75, 0.15) → 4.93
 * @source rms of C·sin θ for a normally distributed turn; bounds and blur: our own choice
 */
export function steadinessLimit(cylinder: Dioptres, blur: Dioptres): Degrees {
  const { least, most } = STEADINESS_BOUNDS;
  const share = 2 * (blur / Math.abs(cylinder)) ** 2;
  // Past half its variance a cylinder never loses so much, however it turns.
  if (!(share < 1)) return most;
  return Math.min(most, Math.max(least, (Math.sqrt(-Math.log(1 - share) / 2) * 180) / Math.PI));
}

/** What a practice calls unsteady and slow, and how many blinks it reads. */
export interface SteadinessRules {
  readonly readerNoiseDegrees: Degrees;
  /** Blur that the scatter alone may leave, D rms. */
  readonly scatterBlur: Dioptres;
  /** Seconds until back within 10° after being pushed 45° off. */
  readonly recoverySeconds: number;
  readonly blinkSchool: 'threeThenFive' | 'alwaysFive';
}

export type Unsteady = 'unsteady' | 'drifting' | 'slow';

/**
 * Blinks to read before a series speaks: three, or five when the three scatter (a lens that is clearly steady is not asked
 * again).
 * @param cylinder of the eye's need, D
 * @example readingsWanted(seriesStats([10, 9, 11], 2), -1.75, rules) → 3
 * @source three then five: common practice; the share: our own, simulated
 */
export function readingsWanted(stats: SeriesStats | null, cylinder: Dioptres, rules: SteadinessRules): number {
  if (rules.blinkSchool === 'alwaysFive') return FULL_SERIES;
  if (stats === null || stats.count < FEWEST_READINGS || stats.sd === null) return FEWEST_READINGS;
  return stats.sd <= EARLY_SHARE * steadinessLimit(cylinder, rules.scatterBlur) + 1e-9 ? FEWEST_READINGS : FULL_SERIES;
}

/**
 * Why a lens does not sit still; null when it does, or when too little was read to say so. What counts is the blur that the
 * scatter, or the drift over four blinks, leaves through this cylinder.
 * @param recoverySeconds until back within 10° after being pushed 45° off; null when not tried
 * @param cylinder of the eye's need, D
 * @example unsteadiness(seriesStats([10, 8, 11, 10, 11], 2), null, rules, -1.75) → null
 * @source our own choice, practice settings
 */
export function unsteadiness(stats: SeriesStats, recoverySeconds: number | null, rules: SteadinessRules, cylinder: Dioptres): Unsteady | null {
  if (stats.count >= FULL_SERIES && stats.lensSd !== null && stats.lensSd > steadinessLimit(cylinder, rules.scatterBlur) + 1e-9) return 'unsteady';
  if (stats.count >= FULL_SERIES && stats.slope !== null && stats.slopeError !== null) {
    const cost = turnCost(cylinder, Math.min(90, Math.abs(stats.slope) * DRIFT_BLINKS)).blur;
    if (cost > rules.scatterBlur + 1e-9 && Math.abs(stats.slope) > slopeErrors(stats.count) * stats.slopeError) return 'drifting';
  }
  if (recoverySeconds !== null && recoverySeconds > rules.recoverySeconds) return 'slow';
  return null;
}

/**
 * What a turn costs a cylinder that is otherwise right: a cylinder of 2·C·sin θ, with a blur strength of C·sin θ. The
 * cylinder is twice the blur: each figure says which of the two it is.
 * @param cylinder D, sign ignored
 * @example turnCost(-2.25, 10) → {cylinder: 0.781, blur: 0.391}
 * @source obliquely crossed cylinders
 */
export function turnCost(cylinder: Dioptres, turn: Degrees): { readonly cylinder: Dioptres; readonly blur: Dioptres } {
  const blur = Math.abs(cylinder * Math.sin((turn * Math.PI) / 180));
  return { cylinder: 2 * blur, blur };
}
