import { Temporal } from 'temporal-polyfill';
import type { IsoDate, IsoInstant } from '../units';

/** A day some days later (or earlier, negative). @example addDays('2026-02-27', 2) → '2026-03-01' */
export const addDays = (day: IsoDate, days: number): IsoDate => Temporal.PlainDate.from(day).add({ days }).toString();

/** A day some years later; 29 Feb becomes 28 Feb. @example addYears('2028-02-29', 1) → '2029-02-28' */
export const addYears = (day: IsoDate, years: number): IsoDate => Temporal.PlainDate.from(day).add({ years }).toString();

/** Days from a to b, negative when b is earlier. @example daysBetween('2026-01-01', '2026-01-31') → 30 */
export const daysBetween = (a: IsoDate, b: IsoDate): number => Temporal.PlainDate.from(a).until(Temporal.PlainDate.from(b), { largestUnit: 'days' }).days;

/** The calendar day of an instant in a time zone. @example dayIn('2026-11-24T23:30:00Z', 'Pacific/Auckland') → '2026-11-25' */
export const dayIn = (instant: IsoInstant, timeZone: string): IsoDate => Temporal.Instant.from(instant).toZonedDateTimeISO(timeZone).toPlainDate().toString();

/** True for a real calendar day written YYYY-MM-DD. @example isIsoDate('2026-02-30') → false */
export function isIsoDate(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  try {
    Temporal.PlainDate.from(text, { overflow: 'reject' });
    return true;
  } catch {
    return false;
  }
}

/** Whole years of age on a day. @example ageOn('1992-03-14', '2026-11-24') → 34 */
export const ageOn = (birthDate: IsoDate, day: IsoDate): number =>
  Temporal.PlainDate.from(birthDate).until(Temporal.PlainDate.from(day), { largestUnit: 'years' }).years;

/** Seconds from a to b. @example secondsBetween('2026-01-01T00:00:00Z', '2026-01-01T00:01:00Z') → 60 */
export const secondsBetween = (a: IsoInstant, b: IsoInstant): number =>
  (Temporal.Instant.from(b).epochMilliseconds - Temporal.Instant.from(a).epochMilliseconds) / 1000;

/** An instant some seconds later. @example addSeconds('2026-01-01T00:00:00Z', 60) → '2026-01-01T00:01:00Z' */
export const addSeconds = (at: IsoInstant, seconds: number): IsoInstant => Temporal.Instant.from(at).add({ seconds }).toString();
