import 'server-only';
import { Temporal } from 'temporal-polyfill';
import { openingOn, type IsoDate, type IsoInstant, type OpenDay, type PracticeHours } from '../../core';

/** The instant of a minute of a day at the practice. Where the clock skips that minute, the one after the gap. */
export const momentOf = (day: IsoDate, minute: number, timeZone: string): IsoInstant =>
  Temporal.PlainDate.from(day)
    .toZonedDateTime({ timeZone, plainTime: { hour: Math.floor(minute / 60) % 24, minute: minute % 60 } })
    .add({ days: minute >= 1440 ? 1 : 0 })
    .toInstant()
    .toString({ fractionalSecondDigits: 3 });

/** A day at the practice, from its first instant to the next day's. */
export function boundsOf(day: IsoDate, timeZone: string): { readonly from: IsoInstant; readonly to: IsoInstant } {
  const start = Temporal.PlainDate.from(day).toZonedDateTime(timeZone);
  return { from: start.toInstant().toString(), to: start.add({ days: 1 }).toInstant().toString() };
}

/** Day and minute from midnight of an instant, as the practice's clock shows them. */
export function clockOf(instant: IsoInstant, timeZone: string): { readonly day: IsoDate; readonly minute: number } {
  const at = Temporal.Instant.from(instant).toZonedDateTimeISO(timeZone);
  return { day: at.toPlainDate().toString(), minute: at.hour * 60 + at.minute };
}

/** A day with its hours as instants; null when the practice is closed. */
export function openDayOf(hours: PracticeHours, day: IsoDate, timeZone: string): OpenDay | null {
  const opening = openingOn(hours, day);
  if (opening === null) return null;
  return { day, opens: Date.parse(momentOf(day, opening.opensMinute, timeZone)), closes: Date.parse(momentOf(day, opening.closesMinute, timeZone)) };
}
