import 'server-only';
import { addDays, type IsoInstant } from '../../core';
import { clockOf, momentOf } from '../appointment/moments';

/** When a lens went in, as a wearer says it: at seven, or at seven three days ago. */
export interface SaidSince {
  /** Minutes from midnight, 0 to 1439. */
  readonly time: number;
  /** Days ago, of whoever sleeps in them; 0: when the clock last said so, which may have been last night. */
  readonly daysAgo: number;
}

/**
 * The moment at which a lens went in.
 * @param now moment
 * @param timeZone of the practice, IANA
 * @returns never after now
 */
export function putOnMoment({ time, daysAgo }: SaidSince, now: IsoInstant, timeZone: string): IsoInstant {
  const { day, minute } = clockOf(now, timeZone);
  return momentOf(addDays(day, -(daysAgo === 0 && time > minute ? 1 : daysAgo)), time, timeZone);
}
