import type { Modality } from '../lens/family';
import { lensesNeeded, packsFor } from './runOut';

/** What a reusable lens is cared for with. Money is whole minor units (cents). */
export interface CareSupply {
  /** Days one pack lasts. */
  readonly lastsDays: number;
  readonly priceMinor: number;
  /** Does every pack bring a case? */
  readonly includesCase: boolean;
}

export interface CareYear {
  readonly packs: number;
  readonly solution: number;
  /** Cases bought beside the packs. */
  readonly casesBought: number;
  readonly cases: number;
  readonly total: number;
}

const DAYS = 365;

/**
 * A year of care for reusable lenses: by the calendar, whole packs; cases that come with the packs are not bought again.
 * @param product null when the practice names none: only cases count
 * @param caseEach price of a case, minor units
 * @param casesPerYear how often the practice has the case replaced
 * @example careYear({lastsDays: 60, priceMinor: 2200, includesCase: true}, 300, 4).total → 15400
 * @source arithmetic; opened solution lasts by the calendar, common practice
 */
export function careYear(product: CareSupply | null, caseEach: number, casesPerYear: number): CareYear {
  const packs = product ? Math.ceil(DAYS / product.lastsDays) : 0;
  const solution = product ? packs * product.priceMinor : 0;
  const casesBought = Math.max(0, casesPerYear - (product?.includesCase ? packs : 0));
  const cases = casesBought * caseEach;
  return { packs, solution, casesBought, cases, total: solution + cases };
}

/** What is paid beside the lenses. */
export interface CostPrices {
  readonly fitFee: number;
  /** Aftercare, a year. */
  readonly aftercareYear: number;
  /** Care products, a year; reusable lenses only. */
  readonly care: number;
  /** Lenses lost or torn, per cent of what is needed. */
  readonly lossPercent: number;
}

/** What one eye's lenses are sold in. */
export interface CostPack {
  readonly packSize: number;
  readonly packPrice: number;
  /** Paid back for each pack. */
  readonly rebate?: number;
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

const careOf = (modality: Modality, p: CostPrices): number => (modality === 'daily' ? 0 : p.care);
const withLoss = (lenses: number, p: CostPrices): number => Math.ceil(lenses * (1 + p.lossPercent / 100) - 1e-9);

/**
 * What a year of lenses costs: dailies by wearing days, reusables by the calendar, an allowance for losses, rounded
 * up to packs; care products for reusables; fees; a rebate comes back later.
 * @param eyes one entry an eye that wears a lens
 * @param daysPerWeek 1 to 7
 * @example yearlyCost('daily', [{packSize: 30, packPrice: 3350}], 6, {fitFee: 0, aftercareYear: 0, care: 0, lossPercent: 0}).packs → 11
 * @source counting rules: common practice; the rest is arithmetic
 */
export function yearlyCost(modality: Modality, eyes: readonly CostPack[], daysPerWeek: number, prices: CostPrices): YearlyCost {
  const lensesPerEye = withLoss(lensesNeeded(DAYS, { modality, daysPerWeek }), prices);
  const packsEach = eyes.map((e) => packsFor(lensesPerEye, e.packSize));
  const ofAll = (of: (eye: CostPack) => number): number => eyes.reduce((sum, e, i) => sum + (packsEach[i] ?? 0) * of(e), 0);
  const lenses = ofAll((e) => e.packPrice);
  const rebate = ofAll((e) => e.rebate ?? 0);
  const care = careOf(modality, prices);
  const fees = prices.fitFee + prices.aftercareYear;
  const upFront = lenses + care + fees;
  return { lensesPerEye, packs: ofAll(() => 1), lenses, care, fees, upFront, rebate, net: upFront - rebate };
}

/**
 * Wearing days a week at which a daily and a reusable lens cost the same, rebates taken off, before packs are rounded
 * up; fees are the same for both. Null when no number of days up to 7 is enough: the dailies then cost less.
 * @example breakEvenDays([{packSize: 30, packPrice: 3000}], 'monthly', [{packSize: 6, packPrice: 3000}], {fitFee: 0, aftercareYear: 0, care: 0, lossPercent: 0}) → 1.25
 * @source arithmetic
 */
export function breakEvenDays(daily: readonly CostPack[], reusable: Exclude<Modality, 'daily'>, packs: readonly CostPack[], prices: CostPrices): number | null {
  const loss = 1 + prices.lossPercent / 100;
  const perLens = (eyes: readonly CostPack[]): number => eyes.reduce((sum, e) => sum + (e.packPrice - (e.rebate ?? 0)) / e.packSize, 0) * loss;
  const year = lensesNeeded(DAYS, { modality: reusable, daysPerWeek: 7 }) * perLens(packs) + careOf(reusable, prices);
  const days = year / ((DAYS / 7) * perLens(daily));
  return days > 7 ? null : days;
}
