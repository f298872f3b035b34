import { Temporal } from 'temporal-polyfill';
import { addDays, dayIn, instantOf, millisecondsOf } from '../calendar/dates';
import type { IsoDate, IsoInstant } from '../units';

/** From and to as minutes from midnight of a day's own clock. */
export interface DayWindow {
  readonly fromMinute: number;
  readonly toMinute: number;
}
/** When hours count, in one time zone. */
export interface BusinessCalendar {
  /** IANA. */
  readonly timeZone: string;
  /** Null on a day on which none count. */
  readonly windowOn: (day: IsoDate) => DayWindow | null;
}

const HOUR = 3_600_000;
/** Who has no hours for so many days has none. */
const SEARCHED_DAYS = 400;

/** The instant of a minute of a day, ms since the epoch; where the clock skips it, the one after the gap. */
function instantAt(day: IsoDate, minute: number, timeZone: string): number {
  const { year, month, day: of } = Temporal.PlainDate.from(day);
  const at = Temporal.PlainDateTime.from({ year, month, day: of }).add({ minutes: minute });
  return at.toZonedDateTime(timeZone).epochMilliseconds;
}

/**
 * The instant at which so many business hours are over: time counts only within a day's window, and what arrives outside one
 * starts at the next opening. An hour is an hour that passes, whatever the clock shows.
 * @returns null where no hours count within a year
 * @example businessDeadline('2026-11-20T21:00:00Z', 8, calendarsOf(RULE_PROFILES.us, { week: USUAL_WEEK, closedDays: [] }, 'America/New_York').usual) → '2026-11-23T21:00:00.000Z'
 * @source 16 CFR 315.2, from memory
 */
export function businessDeadline(from: IsoInstant, hours: number, { timeZone, windowOn }: BusinessCalendar): IsoInstant | null {
  const start = millisecondsOf(from);
  let left = hours * HOUR;
  let day = dayIn(from, timeZone);
  for (let searched = 0; searched < SEARCHED_DAYS; searched++, day = addDays(day, 1)) {
    const window = windowOn(day);
    if (!window) continue;
    const begins = Math.max(start, instantAt(day, window.fromMinute, timeZone));
    const open = instantAt(day, window.toMinute, timeZone) - begins;
    if (open <= 0) continue;
    if (left <= open) return instantOf(begins + left);
    left -= open;
  }
  return null;
}
