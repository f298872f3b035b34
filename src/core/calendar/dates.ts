import { memoize } from '../../lib/memoize';
import type { IsoDate, IsoInstant } from '../units';

/**
 * Calendar days as the platform's own calendar reckons them: proleptic Gregorian, in UTC, so that no time zone of the machine
 * bears on them. A test compares every function with the Temporal polyfill.
 */

const DAY_MS = 86_400_000;
/** Days since 1970-01-01, for whoever reckons with many days. @example dayNumber('1970-01-02') → 1 */
export const dayNumber = (day: IsoDate): number => Date.UTC(Number(day.slice(0, 4)), Number(day.slice(5, 7)) - 1, Number(day.slice(8, 10))) / DAY_MS;
/** The day so many days after 1970-01-01. @example dayFromNumber(1) → '1970-01-02' */
export const dayFromNumber = (number: number): IsoDate => new Date(number * DAY_MS).toISOString().slice(0, 10);

/** A day some days later (or earlier, negative). @example addDays('2026-02-27', 2) → '2026-03-01' */
export const addDays = (day: IsoDate, days: number): IsoDate => dayFromNumber(dayNumber(day) + days);

/** A day some years later; 29 Feb becomes 28 Feb. @example addYears('2028-02-29', 1) → '2029-02-28' */
export function addYears(day: IsoDate, years: number): IsoDate {
  const later = `${String(Number(day.slice(0, 4)) + years).padStart(4, '0')}${day.slice(4)}`;
  return isIsoDate(later) ? later : `${later.slice(0, 8)}28`;
}

/** A day some months later; where that month is shorter, its last day. @example addMonths('2026-08-31', 6) → '2027-02-28' */
export function addMonths(day: IsoDate, months: number): IsoDate {
  const month = Number(day.slice(0, 4)) * 12 + Number(day.slice(5, 7)) - 1 + months;
  const start = `${String(Math.floor(month / 12)).padStart(4, '0')}-${String((month % 12) + 1).padStart(2, '0')}`;
  const last = ['28', '29', '30', '31'].findLast((date) => isIsoDate(`${start}-${date}`)) ?? '28';
  return `${start}-${day.slice(8) > last ? last : day.slice(8)}`;
}

/** Days from a to b, negative when b is earlier. @example daysBetween('2026-01-01', '2026-01-31') → 30 */
export const daysBetween = (a: IsoDate, b: IsoDate): number => dayNumber(b) - dayNumber(a);

const dayFormat = memoize((timeZone) => new Intl.DateTimeFormat('en-US', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit', calendar: 'gregory' }));

/** The calendar day of an instant in a time zone. @example dayIn('2026-11-24T23:30:00Z', 'Pacific/Auckland') → '2026-11-25' */
export function dayIn(instant: IsoInstant, timeZone: string): IsoDate {
  const parts = dayFormat(timeZone).formatToParts(new Date(instant));
  const part = (type: 'year' | 'month' | 'day'): string => parts.find((p) => p.type === type)?.value ?? '';
  return `${part('year').padStart(4, '0')}-${part('month')}-${part('day')}`;
}

/** True for a real calendar day written YYYY-MM-DD. @example isIsoDate('2026-02-30') → false */
export function isIsoDate(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const number = dayNumber(text);
  return Number.isFinite(number) && dayFromNumber(number) === text;
}

/** Whole years of age on a day; who was born on 29 February turns a year older on 1 March of other years. @example ageOn('1992-03-14', '2026-11-24') → 34 */
export function ageOn(birthDate: IsoDate, day: IsoDate): number {
  const years = Number(day.slice(0, 4)) - Number(birthDate.slice(0, 4));
  return birthDate.slice(5) <= day.slice(5) ? years : years - 1;
}

/** @returns 1 Monday … 7 Sunday, as ISO 8601 counts. @example weekdayOf('2026-11-24') → 2 */
export const weekdayOf = (day: IsoDate): number => ((((dayNumber(day) + 3) % 7) + 7) % 7) + 1;

/** Milliseconds since the epoch. @example millisecondsOf('1970-01-01T00:00:01Z') → 1000 */
export const millisecondsOf = (at: IsoInstant): number => Date.parse(at);

/** The instant of so many milliseconds since the epoch. @example instantOf(1000) → '1970-01-01T00:00:01.000Z' */
export const instantOf = (milliseconds: number): IsoInstant => new Date(milliseconds).toISOString();

/** Seconds from a to b. @example secondsBetween('2026-01-01T00:00:00Z', '2026-01-01T00:01:00Z') → 60 */
export const secondsBetween = (a: IsoInstant, b: IsoInstant): number => (Date.parse(b) - Date.parse(a)) / 1000;

/** An instant some seconds later. @example addSeconds('2026-01-01T00:00:00Z', 60) → '2026-01-01T00:01:00.000Z' */
export const addSeconds = (at: IsoInstant, seconds: number): IsoInstant => new Date(Date.parse(at) + seconds * 1000).toISOString();
