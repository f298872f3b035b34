import { addDays, weekdayOf } from '../calendar/dates';
import type { IsoDate } from '../units';

/** A federal holiday of the United States, on the day on which it is observed. */
export interface FederalHoliday {
  readonly day: IsoDate;
  readonly name: string;
}

const MONDAY = 1;
const THURSDAY = 4;
const date = (year: number, month: number, day: number): IsoDate => `${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
/** The nth weekday of a month, the first being 1. */
function nth(year: number, month: number, weekday: number, count: number): IsoDate {
  const first = date(year, month, 1);
  return addDays(first, ((weekday - weekdayOf(first) + 7) % 7) + (count - 1) * 7);
}
/** The last weekday of a month with 31 days. */
function last(year: number, month: number, weekday: number): IsoDate {
  const end = date(year, month, 31);
  return addDays(end, -((weekdayOf(end) - weekday + 7) % 7));
}
/** A holiday of a fixed day that falls on a Saturday is observed the day before, on a Sunday the day after. */
function observed(day: IsoDate): IsoDate {
  const weekday = weekdayOf(day);
  return weekday === 6 ? addDays(day, -1) : weekday === 7 ? addDays(day, 1) : day;
}

/**
 * The federal holidays of a year, on the days on which they are observed: the first may lie in the December before.
 * @example federalHolidays(2028)[0] → { day: '2027-12-31', name: 'newYear' }
 * @source 5 U.S.C. 6103 and Executive Order 11582, from memory; checked against date-holidays
 */
export const federalHolidays = (year: number): readonly FederalHoliday[] => [
  { day: observed(date(year, 1, 1)), name: 'newYear' },
  { day: nth(year, 1, MONDAY, 3), name: 'king' },
  { day: nth(year, 2, MONDAY, 3), name: 'washington' },
  { day: last(year, 5, MONDAY), name: 'memorial' },
  ...(year >= 2021 ? [{ day: observed(date(year, 6, 19)), name: 'juneteenth' }] : []),
  { day: observed(date(year, 7, 4)), name: 'independence' },
  { day: nth(year, 9, MONDAY, 1), name: 'labor' },
  { day: nth(year, 10, MONDAY, 2), name: 'columbus' },
  { day: observed(date(year, 11, 11)), name: 'veterans' },
  { day: nth(year, 11, THURSDAY, 4), name: 'thanksgiving' },
  { day: observed(date(year, 12, 25)), name: 'christmas' },
];

/** The holiday observed on a day; null for none. The year after is looked at as well: its New Year may be observed in December. */
export function federalHolidayOn(day: IsoDate): string | null {
  const year = Number(day.slice(0, 4));
  return [...federalHolidays(year), ...federalHolidays(year + 1)].find((h) => h.day === day)?.name ?? null;
}
