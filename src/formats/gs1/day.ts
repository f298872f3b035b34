import { addDays, addMonths, isIsoDate } from '../../core';

/**
 * The year that two digits mean: at most 49 years back and 50 ahead of the year that is.
 * @example yearOf(77, 2026) → 1977
 * @source GS1 General Specifications, section 7.12
 */
export function yearOf(twoDigits: number, thisYear: number): number {
  const century = Math.floor(thisYear / 100) * 100;
  const ahead = twoDigits - (thisYear % 100);
  return century + twoDigits + (ahead >= 51 ? -100 : ahead <= -50 ? 100 : 0);
}

/**
 * A day written as YYMMDD; day 00 is the last of the month.
 * @param today an ISO day, for the century
 * @returns an ISO day; null where there is no such day
 * @example dayOf('280200', '2026-11-24') → '2028-02-29'
 */
export function dayOf(text: string, today: string): string | null {
  if (!/^\d{6}$/.test(text)) return null;
  const year = String(yearOf(Number(text.slice(0, 2)), Number(today.slice(0, 4)))).padStart(4, '0');
  const [month, day] = [text.slice(2, 4), text.slice(4, 6)];
  if (day !== '00') return isIsoDate(`${year}-${month}-${day}`) ? `${year}-${month}-${day}` : null;
  const first = `${year}-${month}-01`;
  return isIsoDate(first) ? addDays(addMonths(first, 1), -1) : null;
}

/** A day as YYMMDD. @example dayText('2028-02-29') → '280229' */
export const dayText = (day: string): string => `${day.slice(2, 4)}${day.slice(5, 7)}${day.slice(8, 10)}`;
