import { addDays, addMonths, addSeconds } from '../calendar/dates';
import type { IsoDate, IsoInstant } from '../units';
import type { CareProduct } from './careSystem';

/**
 * When the disinfection time of a soak is over. By the clock on the wall this may look an hour off across daylight saving: what
 * counts is the time that passed.
 * @returns null where the product's time is not known
 * @example soakOver('2026-03-08T04:10:00.000Z', {soakMinutes: 360}) → '2026-03-08T10:10:00.000Z'
 */
export const soakOver = (startedAt: IsoInstant, product: Pick<CareProduct, 'soakMinutes'>): IsoInstant | null =>
  product.soakMinutes === null ? null : addSeconds(startedAt, product.soakMinutes * 60);

/** The last days on which things are used. */
export interface CareDates {
  readonly bottle: IsoDate | null;
  readonly catalyst: IsoDate | null;
  readonly ordinaryCase: IsoDate | null;
}

/**
 * The last day of use of a bottle, its catalyst and an ordinary case that are opened on one day, which is day 1. A peroxide's own case is
 * replaced with its bottle.
 * @param caseMonths as the practice has it replaced
 * @example careDates('2026-01-01', {system: 'multipurpose', discardDays: 90, catalystDays: null}, 3).bottle → '2026-03-31'
 * @example careDates('2026-01-31', {system: 'multipurpose', discardDays: null, catalystDays: null}, 1).ordinaryCase → '2026-02-27'
 */
export function careDates(openedOn: IsoDate, product: Pick<CareProduct, 'system' | 'discardDays' | 'catalystDays'>, caseMonths: number): CareDates {
  const last = (days: number | null): IsoDate | null => (days === null ? null : addDays(openedOn, days - 1));
  return {
    bottle: last(product.discardDays),
    catalyst: last(product.catalystDays),
    ordinaryCase: product.system === 'peroxide' ? null : addDays(addMonths(openedOn, caseMonths), -1),
  };
}
