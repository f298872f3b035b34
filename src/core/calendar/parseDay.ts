import { err, ok, type Result } from '../../lib/outcome';
import type { IsoDate } from '../units';
import { isIsoDate } from './dates';

export interface DayProblem {
  readonly code: 'empty' | 'notADay' | 'ambiguousDay';
  readonly repairs: readonly string[];
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const two = (n: number): string => String(n).padStart(2, '0');

/**
 * Reads a calendar day as typed: `1992-03-14`, `14 Mar 1992`, `14.3.1992`. A day and month that could be swapped
 * (`3/4/1992`) is not guessed: both readings are offered.
 * @returns YYYY-MM-DD
 * @example parseDay('14 Mar 1992').value → '1992-03-14'
 * @source notation: common practice
 */
export function parseDay(text: string): Result<IsoDate, DayProblem> {
  const plain = text.trim().toLowerCase();
  if (plain === '') return err({ code: 'empty', repairs: [] });
  const checked = (year: number, month: number, day: number): Result<IsoDate, DayProblem> => {
    const iso = `${year}-${two(month)}-${two(day)}`;
    return isIsoDate(iso) ? ok(iso) : err({ code: 'notADay', repairs: [] });
  };
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(plain);
  if (iso) return checked(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  const words = /^(\d{1,2})\.?\s+([a-z]{3})[a-z]*\.?,?\s+(\d{4})$/.exec(plain);
  if (words) {
    const month = MONTHS.indexOf(words[2] ?? '') + 1;
    return month === 0 ? err({ code: 'notADay', repairs: [] }) : checked(Number(words[3]), month, Number(words[1]));
  }
  const numbers = /^(\d{1,2})([./-])(\d{1,2})\2(\d{4})$/.exec(plain);
  if (!numbers) return err({ code: 'notADay', repairs: [] });
  const [a, b, year] = [Number(numbers[1]), Number(numbers[3]), Number(numbers[4])];
  const dayFirst = checked(year, b, a);
  const monthFirst = checked(year, a, b);
  if (dayFirst.ok && monthFirst.ok && dayFirst.value !== monthFirst.value) {
    return err({ code: 'ambiguousDay', repairs: [dayFirst.value, monthFirst.value] });
  }
  return dayFirst.ok ? dayFirst : monthFirst;
}
