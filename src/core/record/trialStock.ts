import { addDays } from '../calendar/dates';
import type { IsoDate } from '../units';

/** Why a trial lens came or went. `opening`: what was in the drawer before movements were kept. */
export const TRIAL_MOVEMENTS = ['opening', 'received', 'putOn', 'putBack', 'counted', 'thrownAway', 'givenHome', 'lent', 'lentBack'] as const;
export type TrialMovementKind = (typeof TRIAL_MOVEMENTS)[number];

/** Why a trial lens is thrown away. */
export const TRIAL_LEAVES = ['expired', 'opened', 'damaged', 'recalled'] as const;
export type TrialLeaves = (typeof TRIAL_LEAVES)[number];

/** Days before its expiry from which a lot is named, so that it is used or replaced in time. Our own choice. */
export const SOON_EXPIRED_DAYS = 60;

/**
 * How a lot stands by its expiry: usable up to and including that day.
 * @example expiryState('2026-11-27', '2026-11-28') → 'expired'
 * @example expiryState('2027-01-27', '2026-11-28') → 'soon'
 * @source a lens may be opened up to the printed day: common practice
 */
export const expiryState = (expiresOn: IsoDate, today: IsoDate): 'fine' | 'soon' | 'expired' =>
  expiresOn < today ? 'expired' : expiresOn <= addDays(today, SOON_EXPIRED_DAYS) ? 'soon' : 'fine';
