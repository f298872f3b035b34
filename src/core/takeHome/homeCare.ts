import { addDays, addMonths } from '../calendar/dates';
import type { CareProduct } from '../care/careSystem';
import { careDates } from '../care/clocks';
import type { CareTopic } from '../teaching/careTopics';
import type { Eye, IsoDate } from '../units';

/** What is done with lenses in the evening and in the morning, drawn and said; with the topic in which it is taught. */
const MULTIPURPOSE = [
  ['rub', 'rubAndRinse'],
  ['rinse', 'rubAndRinse'],
  ['soak', 'freshSolution'],
  ['empty', 'freshSolution'],
  ['dry', 'freshSolution'],
] as const satisfies readonly (readonly [string, CareTopic])[];
const PEROXIDE = [
  ['rub', 'rubAndRinse'],
  ['peroxide', 'ownCaseFullHours'],
  ['peroxideEye', 'ownCaseFullHours'],
  ['emptyOwn', 'freshSolution'],
] as const satisfies readonly (readonly [string, CareTopic])[];
const SINGLE_USE = [['bin', 'replaceOnTime']] as const satisfies readonly (readonly [string, CareTopic])[];
export const HOME_STEPS = [...MULTIPURPOSE, ...PEROXIDE.slice(1), ...SINGLE_USE] as const;
export type HomeStep = (typeof HOME_STEPS)[number][0];

/** The steps of an evening and a morning, in order. @param product null: lenses are thrown away each evening */
export const homeSteps = (product: Pick<CareProduct, 'system'> | null): readonly HomeStep[] =>
  (product === null ? SINGLE_USE : product.system === 'peroxide' ? PEROXIDE : MULTIPURPOSE).map(([step]) => step);

/** The product of the page, by its label. */
export interface HomeProduct {
  readonly productId: string;
  readonly name: string;
  readonly system: 'multipurpose' | 'peroxide';
  readonly ownLabel: boolean;
  readonly soakMinutes: number;
  readonly storeDays: number;
  readonly discardDays: number;
  readonly catalystDays: number | null;
}

/**
 * The product with every figure that the page needs; null where one is not known, or where it disinfects no soft lens.
 * @example homeProduct({productId: 'p', system: 'saline', name: 'S', maker: 'M', ownLabel: false, soakMinutes: null, storeDays: null, discardDays: null, catalystDays: null, includesCase: false, ended: false}) → null
 */
export function homeProduct(product: CareProduct): HomeProduct | null {
  const { productId, name, system, ownLabel, soakMinutes, storeDays, discardDays, catalystDays } = product;
  if (soakMinutes === null || storeDays === null || discardDays === null) return null;
  if (system !== 'multipurpose' && system !== 'peroxide') return null;
  return { productId, name, system, ownLabel, soakMinutes, storeDays, discardDays, catalystDays };
}

/** Something that is replaced: its last day where its opening is known, else how long it lasts. */
export interface HomeChange {
  readonly what: 'pair' | Eye | 'case' | 'bottle' | 'catalyst';
  readonly openedOn: IsoDate | null;
  readonly lastDay: IsoDate | null;
  /** Days that it lasts from its opening, day 1; null for a case, which lasts months. */
  readonly days: number | null;
  readonly months: number | null;
}

/**
 * When bottle, catalyst and case are replaced.
 * @param openedOn the day on which they begin to be used; null: nobody knows
 * @param caseMonths as the practice has an ordinary case replaced
 */
export function careChanges(product: HomeProduct, openedOn: IsoDate | null, caseMonths: number): readonly HomeChange[] {
  const dates = openedOn === null ? null : careDates(openedOn, product, caseMonths);
  const ofDays = (what: 'bottle' | 'catalyst', days: number | null): readonly HomeChange[] =>
    days === null ? [] : [{ what, openedOn, lastDay: dates?.[what] ?? null, days, months: null }];
  const ordinary: readonly HomeChange[] =
    product.system === 'peroxide' ? [] : [{ what: 'case', openedOn, lastDay: dates?.ordinaryCase ?? null, days: null, months: caseMonths }];
  return [...ordinary, ...ofDays('bottle', product.discardDays), ...ofDays('catalyst', product.catalystDays)];
}

/**
 * The last day of something that is opened on a day, which is day 1.
 * @example lastDayOf({days: 30, months: null}, '2026-01-01') → '2026-01-30'
 * @example lastDayOf({days: null, months: 3}, '2026-11-24') → '2027-02-23'
 * @source day 1 is the day of opening: common practice
 */
export const lastDayOf = ({ days, months }: Pick<HomeChange, 'days' | 'months'>, openedOn: IsoDate): IsoDate =>
  days === null ? addDays(addMonths(openedOn, months ?? 0), -1) : addDays(openedOn, days - 1);
