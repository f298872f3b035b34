import { secondsBetween } from '../calendar/dates';
import type { IsoInstant } from '../units';

/** How a request stands at a moment. */
export type RequestStanding =
  | { readonly kind: 'answered' }
  | { readonly kind: 'waits'; readonly minutes: number }
  | { readonly kind: 'soon'; readonly minutes: number }
  /** Nobody answered in time: where silence counts as a yes, the seller may ship. */
  | { readonly kind: 'lost'; readonly minutes: number };

/** From so many minutes before its deadline a request is pressing. Our own choice. */
const SOON_MINUTES = 120;

/**
 * @param earliestAt the earliest deadline that a seller could count; null where no hours count
 * @example requestStanding({ answeredAt: null, earliestAt: '2026-11-24T17:00:00Z' }, '2026-11-24T16:00:00Z') → { kind: 'soon', minutes: 60 }
 */
export function requestStanding(
  { answeredAt, earliestAt }: { readonly answeredAt: IsoInstant | null; readonly earliestAt: IsoInstant | null },
  now: IsoInstant,
): RequestStanding {
  if (answeredAt !== null) return { kind: 'answered' };
  if (earliestAt === null) return { kind: 'waits', minutes: Infinity };
  const minutes = Math.floor(secondsBetween(now, earliestAt) / 60);
  if (minutes < 0) return { kind: 'lost', minutes: -minutes };
  return minutes <= SOON_MINUTES ? { kind: 'soon', minutes } : { kind: 'waits', minutes };
}
