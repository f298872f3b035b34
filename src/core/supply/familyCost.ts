import type { Modality } from '../lens/family';
import type { PracticeSettings } from '../practiceSettings';
import { EYES, type Eye } from '../units';
import { careYear, yearlyCost, type CareSupply, type CostPack, type CostPrices, type YearlyCost } from './yearlyCost';

/** What a pack of a family holds and costs, minor units. */
export interface PackFigures {
  readonly packSize: number;
  readonly packPriceMinor: number;
  readonly rebateMinor: number;
}

/** Cases a year, by how often the practice has them replaced. */
const CASES_A_YEAR: Readonly<Record<PracticeSettings['caseMonths'], number>> = { three: 4, one: 12 };

/** The practice's fees, and a year of the care product chosen, in minor units. */
export const pricesOf = (s: PracticeSettings, product: CareSupply | null): CostPrices => ({
  fitFee: Math.round(s.fitFee * 100),
  aftercareYear: Math.round(s.aftercareYear * 100),
  care: careYear(product, Math.round(s.caseEach * 100), CASES_A_YEAR[s.caseMonths]).total,
  lossPercent: s.lossPercent,
});

/** What the eyes that wear a lens would buy: both, while no power is known. */
export function packsOf(family: PackFigures, needs: Readonly<Record<Eye, unknown>>): CostPack[] {
  const eyes = EYES.filter((e) => needs[e] !== null).length || EYES.length;
  return Array.from({ length: eyes }, () => ({ packSize: family.packSize, packPrice: family.packPriceMinor, rebate: family.rebateMinor }));
}

/** Days a week taken when nobody was asked yet. */
export const ASSUMED_DAYS = 7;

/** Wearing days a week as the wearer said; whether anybody asked. @example daysOf({}).days → 7 */
export function daysOf(answers: Readonly<Record<string, { readonly value: unknown } | undefined>>): { readonly days: number; readonly said: boolean } {
  const said = answers.daysPerWeek?.value;
  return typeof said === 'number' ? { days: said, said: true } : { days: ASSUMED_DAYS, said: false };
}

/** A year of one family for the eyes that are fitted. */
export const costOf = (
  family: PackFigures & { readonly modality: Modality },
  needs: Readonly<Record<Eye, unknown>>,
  days: number,
  prices: CostPrices,
): YearlyCost => yearlyCost(family.modality, packsOf(family, needs), days, prices);
