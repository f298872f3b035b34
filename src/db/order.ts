import 'server-only';
import type { DeliverTo, OrderClaim, OrderKind, OrderLine, OrderLineRow, OrderEventRow, OrderReceiptRow, OrderRow, Order, ShipmentLine } from '../core';
import { bundle } from './bundle';
import type { Db } from './client';
import { countingOrders, type Newest } from './newest';

/** Orders of a wearer, newest first: those of lenses to wear, or one whatever it is of. */
const rowsOf = (sql: Db, practiceId: string, wearerId: string, newest: Newest | { readonly orderId: string }) => sql<OrderRow[]>`
  select o.id, o.number, o.request_key, o.visit_id, o.kind, o.prescription_id, o.placed_at, p.display_name as placed_by_name,
    d.due_at, d.done_at, d.attempts,
    o.supplier_id, s.name as supplier_name, o.deliver_to
  from lens_order o join person p on p.id = o.placed_by left join order_dispatch d on d.order_id = o.id left join supplier s on s.id = o.supplier_id
  where o.practice_id = ${practiceId} and o.wearer_id = ${wearerId}
    ${'orderId' in newest ? sql`and o.id = ${newest.orderId}` : sql`and o.id in (${countingOrders(sql, practiceId, wearerId, newest)})`}
  order by o.number desc`;

/** Orders, their lines and everything that happened to them, as parts of a bundle; `asOrders` puts them together. */
export const orderParts = (sql: Db, practiceId: string, wearerId: string, newest: Newest | { readonly orderId: string }) => {
  const rows = rowsOf(sql, practiceId, wearerId, newest);
  return {
    orders: rows,
    orderLines: sql<(OrderLine & { readonly orderId: string })[]>`
      select l.id, l.order_id, l.eye, l.mode, l.lens_id, l.raw, l.packs, l.pack_size, l.pack_price_minor, e.aim
      from order_line l left join prescription_eye e on e.practice_id = l.practice_id and e.prescription_id = l.prescription_id and e.eye = l.eye
      where l.practice_id = ${practiceId} and l.order_id in (select x.id from (${rows}) x)`,
    orderEvents: sql<(OrderEventRow & { readonly orderId: string })[]>`
      select order_id, state, at, supplier_reference, due_on, detail from order_event
      where practice_id = ${practiceId} and order_id in (select x.id from (${rows}) x) order by sequence`,
    orderReceipts: sql<OrderReceiptRow[]>`
      select r.id, r.order_line_id, r.lens_id, r.lot, r.expires_on, r.packs, r.received_at, p.display_name as received_by_name,
        exists (select 1 from hand_over h where h.practice_id = r.practice_id and h.order_receipt_id = r.id and not h.voided
          and not exists (select 1 from hand_over c where c.corrects_id = h.id)) as handed_over
      from order_receipt r join order_line l on l.id = r.order_line_id join person p on p.id = r.received_by
      where r.practice_id = ${practiceId} and l.order_id in (select x.id from (${rows}) x) order by r.sequence`,
    orderShipped: sql<(ShipmentLine & { readonly orderId: string })[]>`
      select l.order_id, h.order_line_id, h.packs, h.lot, h.expires_on, h.faults
      from shipment_line h join order_line l on l.practice_id = h.practice_id and l.id = h.order_line_id
      join supplier_message m on m.practice_id = h.practice_id and m.id = h.supplier_message_id
      where h.practice_id = ${practiceId} and l.order_id in (select x.id from (${rows}) x) order by m.sequence`,
    orderClaims: sql<(OrderClaim & { readonly orderId: string })[]>`
      select c.id, l.order_id, c.order_line_id, c.kind, c.packs, c.note, c.opened_at, p.display_name as opened_by_name,
        (select s.step from order_claim_step s where s.practice_id = c.practice_id and s.claim_id = c.id order by s.sequence desc limit 1) as step
      from order_claim c join order_line l on l.practice_id = c.practice_id and l.id = c.order_line_id join person p on p.id = c.opened_by
      where c.practice_id = ${practiceId} and l.order_id in (select x.id from (${rows}) x) order by c.sequence`,
  };
};
export const asOrders = (parts: {
  readonly orders: readonly OrderRow[];
  readonly orderLines: readonly (OrderLine & { readonly orderId: string })[];
  readonly orderEvents: readonly (OrderEventRow & { readonly orderId: string })[];
  readonly orderReceipts: readonly OrderReceiptRow[];
  readonly orderShipped: readonly (ShipmentLine & { readonly orderId: string })[];
  readonly orderClaims: readonly (OrderClaim & { readonly orderId: string })[];
}): Order[] =>
  parts.orders.map((row) => ({
    ...row,
    lines: parts.orderLines.filter((l) => l.orderId === row.id),
    receipts: parts.orderReceipts.filter((r) => parts.orderLines.some((l) => l.id === r.orderLineId && l.orderId === row.id)),
    events: parts.orderEvents.filter((e) => e.orderId === row.id),
    shipped: parts.orderShipped.filter((s) => s.orderId === row.id),
    claims: parts.orderClaims.filter((c) => c.orderId === row.id),
  }));

export async function findOrderByKey(sql: Db, practiceId: string, requestKey: string): Promise<string | null> {
  const [row] = await sql<{ id: string }[]>`
    select id from lens_order where practice_id = ${practiceId} and request_key = ${requestKey}`;
  return row?.id ?? null;
}

/** An order with its wearer; null when there is none such. */
export async function findOrder(sql: Db, practiceId: string, orderId: string): Promise<(Order & { readonly wearerId: string }) | null> {
  const [of] = await sql<{ wearerId: string }[]>`select wearer_id from lens_order where practice_id = ${practiceId} and id = ${orderId}`;
  if (!of) return null;
  const [order] = asOrders(await bundle(sql, orderParts(sql, practiceId, of.wearerId, { orderId })));
  return order ? { ...order, wearerId: of.wearerId } : null;
}

/** The same, held until the end of the transaction. */
export async function lockOrder(sql: Db, practiceId: string, orderId: string): ReturnType<typeof findOrder> {
  await sql`select pg_advisory_xact_lock(hashtextextended(${`order|${orderId}`}, 0))`;
  return findOrder(sql, practiceId, orderId);
}

export type NewReceipt = Omit<OrderReceiptRow, 'receivedAt' | 'receivedByName' | 'handedOver'>;

/** Boxes that came, and the line in the order's story that says so. */
export async function insertReceipts(
  sql: Db,
  practiceId: string,
  orderId: string,
  receipts: readonly NewReceipt[],
  received: { readonly at: string; readonly by: string; readonly eventId: string; readonly detail: Readonly<Record<string, string | number>> },
): Promise<void> {
  await sql`insert into order_receipt ${sql(receipts.map((r) => ({ ...r, practiceId, receivedAt: received.at, receivedBy: received.by })))}`;
  await sql`
    insert into order_event (id, practice_id, order_id, state, at, detail)
    values (${received.eventId}, ${practiceId}, ${orderId}, 'received', ${received.at}, ${sql.json(received.detail)})`;
}

export interface NewOrder {
  readonly id: string;
  readonly practiceId: string;
  readonly number: number;
  readonly requestKey: string;
  readonly visitId: string;
  readonly visitVersion: number;
  readonly wearerId: string;
  readonly kind: OrderKind;
  readonly prescriptionId: string | null;
  readonly placedAt: string;
  readonly placedBy: string;
  /** Why a prescriber lets it last past the end of its prescription. */
  readonly pastExpiryNote: string | null;
  readonly supplierId: string | null;
  readonly deliverTo: DeliverTo;
  readonly deliveryAddress: string | null;
}

/** Order, lines, first event and its place in the queue: one transaction of the caller's. */
export async function insertOrder(
  sql: Db,
  order: NewOrder,
  lines: readonly OrderLineRow[],
  how: { readonly eventId: string; readonly dispatched: boolean },
): Promise<void> {
  await sql`insert into lens_order ${sql({ ...order })}`;
  for (const line of lines) {
    await sql`insert into order_line ${sql({
      ...line,
      raw: line.raw === null ? null : sql.json({ ...line.raw, worn: { ...line.raw.worn }, overRefraction: { ...line.raw.overRefraction } }),
      practiceId: order.practiceId,
      orderId: order.id,
      prescriptionId: order.prescriptionId,
    })}`;
  }
  await sql`
    insert into order_event (id, practice_id, order_id, state, at)
    values (${how.eventId}, ${order.practiceId}, ${order.id}, 'placed', ${order.placedAt})`;
  // By telephone nothing is sent: somebody says when it was ordered.
  if (!how.dispatched) return;
  await sql`
    insert into order_dispatch (order_id, practice_id, due_at) values (${order.id}, ${order.practiceId}, ${order.placedAt})`;
}

/** Events of some orders together; null when one of them is none of the practice's. */
export async function countOrderEvents(sql: Db, practiceId: string, orderIds: readonly string[]): Promise<number | null> {
  const [row] = await sql<{ orders: number; events: number }[]>`
    select count(distinct o.id)::int as orders, count(e.order_id)::int as events
    from lens_order o left join order_event e on e.practice_id = o.practice_id and e.order_id = o.id
    where o.practice_id = ${practiceId} and o.id = any (${[...orderIds]}::uuid[])`;
  return row && row.orders === new Set(orderIds).size ? row.events : null;
}
