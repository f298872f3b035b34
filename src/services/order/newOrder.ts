import 'server-only';
import { supplierOf, type DeliverTo, type OrderLineRow } from '../../core';
import { findOrderByKey, insertOrder, type NewOrder } from '../../db/order';
import { nextNumber } from '../../db/practice';
import { listSuppliers } from '../../db/supplier';
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

/** A line, and whose lens it is. */
export interface LineOfMaker {
  readonly line: OrderLineRow;
  readonly maker: string;
}
export interface OrderTerms extends Pick<NewOrder, 'requestKey' | 'kind' | 'prescriptionId' | 'pastExpiryNote'> {
  readonly deliverTo?: DeliverTo;
  readonly deliveryAddress?: string | null;
}

/**
 * Keeps an order of a visit under the practice's next number, and queues it for its supplier. Lenses of makers that come from
 * different suppliers are an order for each: one that is down does not hold up the other.
 */
export async function keepOrder(context: Context, taken: LockedVisit, order: OrderTerms, lines: readonly LineOfMaker[]): Promise<Ordered> {
  const { tx, caller, now, newId, supplyOf } = context;
  const { id: visitId, wearerId } = taken.visit;
  const suppliers = await listSuppliers(tx, caller.practiceId);
  const bySupplier = new Map<string | null, OrderLineRow[]>();
  for (const { line, maker } of lines) {
    const id = supplierOf(suppliers, maker)?.id ?? null;
    bySupplier.set(id, [...(bySupplier.get(id) ?? []), line]);
  }
  const ids: string[] = [];
  for (const [supplierId, ofSupplier] of bySupplier) {
    const id = newId();
    const number = await nextNumber(tx, caller.practiceId, 'order');
    const of = { id, practiceId: caller.practiceId, number, visitId, visitVersion: taken.version, wearerId, supplierId };
    // The press's own key belongs to the first of them: found again, all of them are there.
    const requestKey = ids.length === 0 ? order.requestKey : newId();
    const terms = { deliverTo: 'practice', deliveryAddress: null, ...order, requestKey } as const;
    const byTelephone = supplierId !== null && suppliers.find((s) => s.id === supplierId)?.endpoint === null;
    await insertOrder(tx, { ...of, ...terms, placedAt: now, placedBy: caller.personId }, ofSupplier, { eventId: newId(), dispatched: !byTelephone });
    ids.push(id);
  }
  supplyOf.add(wearerId);
  return { orderId: ids[0] ?? '', visitId, version: taken.version };
}
