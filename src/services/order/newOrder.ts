import 'server-only';
import type { OrderLineRow } from '../../core';
import { findOrderByKey, insertOrder, type NewOrder } from '../../db/order';
import { nextNumber } from '../../db/practice';
import type { Context } from '../define';
import type { LockedVisit } from '../visit/lock';

/** What an order answers: the visit's version to go on with, null where the press was answered before. */
export interface Ordered {
  readonly orderId: string;
  readonly visitId: string;
  readonly version: number | null;
}

/** The order that this very press made already: the same press twice is one order. */
export const orderOfKey = ({ tx, caller }: Context, requestKey: string): Promise<string | null> => findOrderByKey(tx, caller.practiceId, requestKey);
/** The same, as an order of a visit answers. */
export async function orderOfPress(context: Context, form: { readonly requestKey: string; readonly visitId: string }): Promise<Ordered | null> {
  const there = await orderOfKey(context, form.requestKey);
  return there === null ? null : { orderId: there, visitId: form.visitId, version: null };
}

/** Keeps an order of a visit under the practice's next number, and queues it for its supplier. */
export async function keepOrder(
  { tx, caller, now, newId, supplyOf }: Context,
  taken: LockedVisit,
  order: Pick<NewOrder, 'requestKey' | 'kind' | 'prescriptionId' | 'pastExpiryNote'>,
  lines: readonly OrderLineRow[],
): Promise<Ordered> {
  const { id: visitId, wearerId } = taken.visit;
  const id = newId();
  const number = await nextNumber(tx, caller.practiceId, 'order');
  const of = { id, practiceId: caller.practiceId, number, visitId, visitVersion: taken.version, wearerId };
  await insertOrder(tx, { ...of, ...order, placedAt: now, placedBy: caller.personId }, lines, newId());
  supplyOf.add(wearerId);
  return { orderId: id, visitId, version: taken.version };
}
