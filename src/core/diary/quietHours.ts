import { Temporal } from 'temporal-polyfill';
import type { IsoInstant } from '../units';

/**
 * The first moment from which somebody may be written to: not before and not after some hours of the practice's day.
 * @param hours whole hours, `from` before `until`
 * @example afterQuiet('2026-11-24T03:00:00.000Z', { from: 8, until: 20 }, 'America/New_York') → '2026-11-24T13:00:00.000Z'
 * @source nobody is written to at night: common practice
 */
export function afterQuiet(at: IsoInstant, hours: { readonly from: number; readonly until: number }, timeZone: string): IsoInstant {
  const local = Temporal.Instant.from(at).toZonedDateTimeISO(timeZone);
  if (local.hour >= hours.from && local.hour < hours.until) return at;
  const day = local.hour < hours.from ? local.toPlainDate() : local.toPlainDate().add({ days: 1 });
  return day
    .toZonedDateTime({ timeZone, plainTime: { hour: hours.from } })
    .toInstant()
    .toString({ fractionalSecondDigits: 3 });
}
