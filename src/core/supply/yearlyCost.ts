import type { Modality } from '../lens/family';
import { lensesNeeded, packsFor } from './runOut';

/** Money is whole minor units (cents). */
export interface CostPrices {
  readonly fitFee: number;
  /** Aftercare, a year. */
  readonly aftercareYear: number;
  /** Solution, a month; reusable lenses only. */
  readonly solutionMonth: number;
  readonly caseEach: number;
  readonly casesPerYear: number;
}

/** What one eye's lenses are sold in. */
export interface CostPack {
  readonly packSize: number;
  readonly packPrice: number;
}

export interface YearlyCost {
  readonly lensesPerEye: number;
  /** Packs of all eyes. */
  readonly packs: number;
  readonly lenses: number;
  readonly care: number;
  readonly fees: number;
  readonly upFront: number;
  readonly rebate: number;
  readonly net: number;
}

const DAYS = 365;
const careOf = (modality: Modality, p: CostPrices): number => (modality === 'daily' ? 0 : 12 * p.solutionMonth + p.casesPerYear * p.caseEach);

/**
 * What a year of lenses costs: dailies by wearing days, reusables by the calendar, rounded up to packs; care
 * products for reusables; fees; a rebate comes back later.
 * @param eyes one entry an eye that wears a lens
 * @param daysPerWeek 1 to 7
 * @param rebate paid back for the year, minor units
 * @example yearlyCost('daily', [{packSize: 30, packPrice: 3350}], 6, {fitFee: 0, aftercareYear: 0, solutionMonth: 0, caseEach: 0, casesPerYear: 4}).packs → 11
 * @source counting rules: common practice; the rest is arithmetic
 */
export function yearlyCost(modality: Modality, eyes: readonly CostPack[], daysPerWeek: number, prices: CostPrices, rebate = 0): YearlyCost {
  const lensesPerEye = lensesNeeded(DAYS, { modality, daysPerWeek });
  const packsEach = eyes.map((e) => packsFor(lensesPerEye, e.packSize));
  const packs = packsEach.reduce((sum, n) => sum + n, 0);
  const lenses = eyes.reduce((sum, e, i) => sum + (packsEach[i] ?? 0) * e.packPrice, 0);
  const care = careOf(modality, prices);
  const fees = prices.fitFee + prices.aftercareYear;
  const upFront = lenses + care + fees;
  return { lensesPerEye, packs, lenses, care, fees, upFront, rebate, net: upFront - rebate };
}

/**
 * Wearing days a week at which a daily and a reusable lens cost the same, before packs are rounded up and before
 * rebates; fees are the same for both. Null when no number of days up to 7 is enough: the dailies then cost less.
 * @example breakEvenDays([{packSize: 30, packPrice: 3000}], 'monthly', [{packSize: 6, packPrice: 3000}], {fitFee: 0, aftercareYear: 0, solutionMonth: 0, caseEach: 0, casesPerYear: 4}) → 1.25
 * @source arithmetic
 */
export function breakEvenDays(daily: readonly CostPack[], reusable: Exclude<Modality, 'daily'>, packs: readonly CostPack[], prices: CostPrices): number | null {
  const perLens = (eyes: readonly CostPack[]): number => eyes.reduce((sum, e) => sum + e.packPrice / e.packSize, 0);
  const year = lensesNeeded(DAYS, { modality: reusable, daysPerWeek: 7 }) * perLens(packs) + careOf(reusable, prices);
  const days = year / ((DAYS / 7) * perLens(daily));
  return days > 7 ? null : days;
}
