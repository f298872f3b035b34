import { millisecondsOf } from '../calendar/dates';
import type { IsoInstant } from '../units';

/** Days until lenses asked of a supplier are taken as never coming. Our own choice. */
export const RESTOCK_DAYS = 30;
const DAY_MS = 86_400_000;
/** Days back of which lenses used are counted, and how many uses of a lens of which none is left propose one. Our own choice. */
export const USED_DAYS = 90;
export const USED_OFTEN = 2;

/** Lenses that were asked for, or came, at a moment. */
export interface Counted {
  readonly at: IsoInstant;
  readonly count: number;
}

/**
 * Lenses still on their way: what comes fills what was asked before it, the first first. What was asked too long ago is waited
 * for no more.
 * @example stillComing([{at: '2026-11-20T10:00:00Z', count: 3}], [{at: '2026-11-23T10:00:00Z', count: 2}], '2026-11-24T10:00:00Z') → 1
 */
export function stillComing(asked: readonly Counted[], came: readonly Counted[], now: IsoInstant): number {
  const inOrder = (of: readonly Counted[]) => of.map(({ at, count }) => ({ at: millisecondsOf(at), count })).sort((a, b) => a.at - b.at);
  const open = inOrder(asked);
  for (const { at, count } of inOrder(came)) {
    let left = count;
    for (const ask of open) {
      if (ask.at >= at) break;
      const filled = Math.min(left, ask.count);
      ask.count -= filled;
      left -= filled;
    }
  }
  const since = millisecondsOf(now) - RESTOCK_DAYS * DAY_MS;
  return open.reduce((sum, a) => (a.at >= since ? sum + a.count : sum), 0);
}

/** One trial lens beside what the drawer is to keep of it. */
export interface TrialLevel {
  /** How many are kept at least; null where nobody said. */
  readonly least: number | null;
  /** Lenses that may be used, those that expire soon among them. */
  readonly left: number;
  readonly expiring: number;
  readonly coming: number;
  /** Lenses used of late. */
  readonly used: number;
}
/** Why lenses are to be ordered: fewer than are kept, what is there expires soon, or used often and none is left. */
export type RestockWhy = 'below' | 'expiring' | 'used';

/**
 * How many trial lenses are to be ordered, and why; null for none.
 * @example restockOf({least: 2, left: 1, expiring: 0, coming: 0, used: 0}) → {count: 1, why: 'below'}
 * @source what is used up or expires is ordered again: common practice
 */
export function restockOf({ least, left, expiring, coming, used }: TrialLevel): { readonly count: number; readonly why: RestockWhy } | null {
  if (least === null) return left + coming === 0 && used >= USED_OFTEN ? { count: 1, why: 'used' } : null;
  const count = least - (left - expiring) - coming;
  return count < 1 ? null : { count, why: left + coming >= least ? 'expiring' : 'below' };
}
