import { addDays } from '../calendar/dates';
import type { IsoDate } from '../units';

/** Hours of the first day, and how much is added each day. Source: common practice. */
const FIRST_HOURS = 4;
const MORE_HOURS = 2;

export interface BuildUpDay {
  readonly day: IsoDate;
  readonly hours: number;
}

/**
 * How long new lenses are worn each day until the usual hours are reached.
 * @param first the first day with the lenses
 * @param most hours a day that are reached in the end, 1 to 24
 * @example buildUp('2026-11-25', 10).map((d) => d.hours) → [4, 6, 8, 10]
 * @source 4 h, 2 h more each day, up to 10 to 12 h: common practice
 */
export function buildUp(first: IsoDate, most: number): readonly BuildUpDay[] {
  const days = Math.max(0, Math.ceil((most - FIRST_HOURS) / MORE_HOURS)) + 1;
  return Array.from({ length: days }, (_, i) => ({ day: addDays(first, i), hours: Math.min(most, FIRST_HOURS + i * MORE_HOURS) }));
}
