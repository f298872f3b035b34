import { addDays } from '../calendar/dates';
import type { IsoDate } from '../units';

/**
 * Days after a new wearer's sign-off on which they are written to: the first day, when the lenses have become usual, before the first aftercare.
 * @source common practice
 */
export const FIRST_DAYS = [1, 3, 7] as const;
export type FirstDay = (typeof FIRST_DAYS)[number];

/** Within so many days of sign-off a new wearer is seen: reusable lenses and nights a week, single-use ones two; then they are called. */
const SEEN_WITHIN = { reusable: 7, singleUse: 14 } as const;
/** Days of grace before somebody calls. Our own choice. */
const GRACE_DAYS = 3;
/** Who was never seen again is not called for ever: sign-offs older than this are left out. Our own choice. */
const LOOKED_BACK_DAYS = 90;

/** Sign-offs of which somebody should have been seen by today, days of the practice's calendar, both counted. */
export interface NotSeenWindow {
  readonly from: IsoDate;
  readonly reusable: IsoDate;
  readonly singleUse: IsoDate;
}
/**
 * @example notSeenWindow('2026-11-24') → {from: '2026-08-26', reusable: '2026-11-14', singleUse: '2026-11-07'}
 * @source aftercare at 1 week, single-use 2 weeks: common practice
 */
export const notSeenWindow = (today: IsoDate): NotSeenWindow => ({
  from: addDays(today, -LOOKED_BACK_DAYS),
  reusable: addDays(today, -(SEEN_WITHIN.reusable + GRACE_DAYS)),
  singleUse: addDays(today, -(SEEN_WITHIN.singleUse + GRACE_DAYS)),
});
