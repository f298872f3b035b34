/** Who sells lenses to a practice. */
export interface Supplier {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  /** Makers whose lenses come from here; none: every maker's that nobody else sells. */
  readonly makers: readonly string[];
  /** Where orders are sent; null: by telephone. */
  readonly endpoint: string | null;
  readonly telephone: string | null;
  /** Minutes from midnight, the practice's clock: what is ordered by then leaves the same day. */
  readonly cutOffMinute: number;
  /** Smallest order that it takes, minor units; 0 for none. */
  readonly minimumMinor: number;
  /** Does it send to wearers' homes? */
  readonly toWearers: boolean;
  /** Days from placed to received of four in five of its last orders; null while they are few. */
  readonly learnedLeadDays: number | null;
  readonly ended: boolean;
}

type Sells = Pick<Supplier, 'makers' | 'ended'>;
const sameName = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/**
 * Who sells a maker's lenses: the first that names it, else the first that takes every maker's.
 * @param suppliers in the order in which the practice prefers them
 * @example supplierOf([{makers: [], ended: false}, {makers: ['Marram'], ended: false}], 'marram')?.makers → ['Marram']
 */
export const supplierOf = <S extends Sells>(suppliers: readonly S[], maker: string): S | null => {
  const open = suppliers.filter((s) => !s.ended);
  return open.find((s) => s.makers.some((m) => sameName(m, maker))) ?? open.find((s) => s.makers.length === 0) ?? null;
};

/** Fewest orders from which a supplier's lead time is learned. Our own choice. */
export const LEARNED_FROM = 5;

/**
 * The days within which four in five of a supplier's orders came.
 * @param days from placed to received, whole days
 * @returns null while they are fewer than five
 * @example learnedLead([3, 4, 4, 5, 12]) → 5
 * @source a lead time that is met four times in five: our own choice
 */
export function learnedLead(days: readonly number[]): number | null {
  if (days.length < LEARNED_FROM) return null;
  const inOrder = [...days].sort((a, b) => a - b);
  return inOrder[Math.ceil(inOrder.length * 0.8) - 1] ?? null;
}

/** Does an order placed at this minute of the day leave the same day? */
export const leavesToday = ({ cutOffMinute }: Pick<Supplier, 'cutOffMinute'>, minute: number): boolean => minute <= cutOffMinute;
