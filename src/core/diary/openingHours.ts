import { addDays, weekdayOf } from '../calendar/dates';
import type { IsoDate } from '../units';

/** When the practice is open on a day, minutes from midnight of its own clock; null when it is closed. */
export type Opening = { readonly opensMinute: number; readonly closesMinute: number } | null;
export interface WeekdayHours {
  /** 1 Monday … 7 Sunday, as ISO 8601 counts. */
  readonly weekday: number;
  readonly opening: Opening;
}
/** A day on which the practice is closed, or open after all. */
export interface ClosedDay {
  readonly day: IsoDate;
  readonly name: string;
  readonly closed: boolean;
}
export interface PracticeHours {
  readonly week: readonly WeekdayHours[];
  readonly closedDays: readonly ClosedDay[];
}

export const WEEKDAYS = [1, 2, 3, 4, 5, 6, 7] as const;
/** Until a practice says when it is open. @source own choice */
export const USUAL_WEEK: readonly WeekdayHours[] = WEEKDAYS.map((weekday) => ({
  weekday,
  opening: weekday <= 5 ? { opensMinute: 9 * 60, closesMinute: 17 * 60 } : null,
}));

/** The whole week: what was said of a weekday, else what is usual. */
export const wholeWeek = (said: readonly WeekdayHours[]): readonly WeekdayHours[] =>
  USUAL_WEEK.map((usual) => said.find((s) => s.weekday === usual.weekday) ?? usual);

/** A day's name, when it is a closed one. */
export const closedNameOf = (hours: PracticeHours, day: IsoDate): string | null => hours.closedDays.find((c) => c.day === day && c.closed)?.name ?? null;

/** When the practice is open on a day. @example openingOn({ week: USUAL_WEEK, closedDays: [] }, '2026-11-29') → null */
export function openingOn(hours: PracticeHours, day: IsoDate): Opening {
  if (closedNameOf(hours, day) !== null) return null;
  return hours.week.find((h) => h.weekday === weekdayOf(day))?.opening ?? null;
}

/** Would something from one minute of the day to another lie outside the hours? */
export const outsideHours = (opening: Opening, fromMinute: number, minutes: number): boolean =>
  opening === null || fromMinute < opening.opensMinute || fromMinute + minutes > opening.closesMinute;

/** The next day on which the practice is open, the day itself counted; null when it is closed for a year. */
export function nextOpenDay(hours: PracticeHours, from: IsoDate): IsoDate | null {
  for (let ahead = 0; ahead < 366; ahead++) {
    const day = addDays(from, ahead);
    if (openingOn(hours, day) !== null) return day;
  }
  return null;
}
