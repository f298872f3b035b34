import { blurBetween } from '../optics/powerVector';
import type { Refraction } from '../optics/refraction';
import { nearestLenses, type NearestLens } from '../lens/nearestLenses';
import type { LensFamily } from '../lens/family';
import type { Degrees, Dioptres, Millimetres } from '../units';
import { compensateAxis, powerOnEye } from './compensate';
import { FEWEST_READINGS, readingsWanted, unsteadiness, type SeriesStats, type SteadinessRules, type Unsteady } from './series';

/** Past this mean turn the schools differ, degrees. */
export const FAR_TURN: Degrees = 30;

export interface RotationRules extends SteadinessRules {
  /** Over 30°: change the design, or compensate a steady lens all the same. */
  readonly turnOver30: 'changeDesign' | 'compensate';
  /** Blur that allowing for the turn must gain, D. */
  readonly compensateFrom: Dioptres;
  readonly cylinderCap: boolean;
}

/** The family of the lens on the eye, in the curve that is tried. */
export interface TriedFamily {
  readonly family: LensFamily;
  readonly baseCurve: Millimetres | null;
  readonly diameter: Millimetres | null;
}

export interface RotationInput {
  readonly stats: SeriesStats;
  /** Seconds until back within 10° after being pushed 45° off; null when not tried. */
  readonly recovery: number | null;
  /** Read before the lens had settled. */
  readonly early: boolean;
  /** What the eye asks at the cornea, unrounded; null while nothing says. */
  readonly need: Refraction | null;
  /** Cylinder of the lens on the eye, D: stands in for that of the need while nothing says what the eye asks. */
  readonly lensCylinder?: Dioptres;
  readonly tried: TriedFamily | null;
  readonly rules: RotationRules;
}

export interface OnEyeLens {
  readonly lens: NearestLens;
  /** Blur strength left when it sits turned by the mean, D. */
  readonly blur: Dioptres;
}

export interface RotationVerdict {
  readonly code: 'provisional' | 'refit' | 'changeDesign' | 'compensate' | 'leave';
  /** `few`: under three readings; `scatters`: three that lie too far apart, five are wanted. */
  readonly why: 'few' | 'scatters' | 'early' | Unsteady | 'far' | 'gains' | 'nothingGained' | 'notComputed';
  /** Readings asked for. */
  readonly wanted: number;
  /** The best makeable lens that takes no notice of the turn, sitting turned by the mean. */
  readonly uncompensated: OnEyeLens | null;
  /** The best makeable lens with the turn allowed for, sitting turned by the mean: the least blur that can be ordered. */
  readonly compensated: OnEyeLens | null;
  /** Blur gained by allowing for the turn, D. */
  readonly gain: Dioptres | null;
}

/** The need with the turn allowed for. */
export const compensatedNeed = (need: Refraction, turn: Degrees): Refraction =>
  need.cylinder === 0 ? need : { ...need, axis: compensateAxis(need.axis, turn) };

/**
 * The lens to order for a need, from one family in one curve, when it will sit turned: no lens of it that is made leaves
 * less blur.
 * @param need at the cornea, unrounded
 * @param turn mean, degrees, examiner's left positive
 * @returns null when the curve makes nothing
 * @example lensForTurn({sphere: -3.13, cylinder: -1.59, axis: 20}, 10, tried, false)?.lens.power.axis → 30
 * @source least blur strength, Thibos et al. 1997; left add, right subtract: common practice
 */
export function lensForTurn(need: Refraction, turn: Degrees, tried: TriedFamily, cylinderCap: boolean): OnEyeLens | null {
  const lens = nearestInCurve(compensatedNeed(need, turn), tried, cylinderCap)[0];
  return lens ? { lens, blur: blurBetween(need, powerOnEye(lens.power, turn)) } : null;
}

/** Nearest powers of a family in the curve that is tried; in any curve when none is known. */
export const nearestInCurve = (asked: Refraction, tried: TriedFamily, cylinderCap: boolean, limit = 1): NearestLens[] =>
  nearestLenses(asked, tried.family, {
    limit,
    cylinderCap,
    ...(tried.baseCurve === null ? {} : { baseCurve: tried.baseCurve }),
    ...(tried.diameter === null ? {} : { diameter: tried.diameter }),
  });

/** Steadiest a lens must be while neither the need nor the lens is known: as for a strong cylinder, D. Our own choice. */
const UNKNOWN_CYLINDER: Dioptres = -2.25;

/**
 * What to do about where the mark sits, in this order: too few or too early, unsteady, far turned, then whether the best
 * lens that can be ordered gains by allowing for the turn. Both lenses compared come from the same family and curve; the
 * trial itself is never one of them, because a wrong sphere is not a rotation. Where nobody knows what the family makes,
 * the turn of a steady lens is allowed for as it stands.
 * @example rotationVerdict({stats: seriesStats([10], 2), recovery: null, early: false, need, tried, rules}).code → 'provisional'
 * @source order of tests: common practice; figures: our own choice, practice settings
 */
export function rotationVerdict(input: RotationInput): RotationVerdict {
  const { stats, recovery, early, need, tried, rules } = input;
  const plain = need && tried ? nearestInCurve(need, tried, rules.cylinderCap)[0] : undefined;
  const uncompensated = need && plain ? { lens: plain, blur: blurBetween(need, powerOnEye(plain.power, stats.mean)) } : null;
  const compensated = need && tried ? lensForTurn(need, stats.mean, tried, rules.cylinderCap) : null;
  const gain = uncompensated && compensated ? uncompensated.blur - compensated.blur : null;
  const cylinder = need?.cylinder ?? input.lensCylinder ?? UNKNOWN_CYLINDER;
  const wanted = readingsWanted(stats, cylinder, rules);
  const made = { uncompensated, compensated, gain, wanted };
  const loose = unsteadiness(stats, recovery, rules, cylinder);
  if (loose !== null) return { code: early ? 'provisional' : 'refit', why: loose, ...made };
  if (stats.count < wanted) return { code: 'provisional', why: stats.count < FEWEST_READINGS ? 'few' : 'scatters', ...made };
  if (early) return { code: 'provisional', why: 'early', ...made };
  if (Math.abs(stats.mean) > FAR_TURN && rules.turnOver30 === 'changeDesign') return { code: 'changeDesign', why: 'far', ...made };
  if (need === null) return { code: 'leave', why: 'notComputed', ...made };
  if (gain === null) return { code: need.cylinder === 0 ? 'leave' : 'compensate', why: 'notComputed', ...made };
  return gain >= rules.compensateFrom - 1e-9 ? { code: 'compensate', why: 'gains', ...made } : { code: 'leave', why: 'nothingGained', ...made };
}
