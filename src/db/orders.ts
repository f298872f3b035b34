import 'server-only';
import type { Eye, RawOrder } from '../core';
import type { Db } from './client';

export type OrderState = 'placed' | 'sendFailed' | 'acknowledged' | 'backordered' | 'refused';

export interface OrderLineRow {
  readonly id: string;
  readonly eye: Eye;
  readonly mode: 'final' | 'raw';
  readonly lensId: string | null;
  readonly raw: RawOrder | null;
  readonly packs: number;
  readonly packSize: number;
  readonly packPriceMinor: number;
}
export interface OrderEventRow {
  readonly state: OrderState;
  readonly at: string;
  readonly supplierReference: string | null;
  readonly dueOn: string | null;
  readonly detail: Readonly<Record<string, string | number>>;
}
export interface OrderRow {
  readonly id: string;
  readonly number: number;
  readonly requestKey: string;
  readonly visitId: string;
  readonly prescriptionId: string;
  readonly placedAt: string;
  readonly placedByName: string;
  readonly dueAt: string | null;
  readonly doneAt: string | null;
  readonly attempts: number | null;
}
export interface OrderWithLines extends OrderRow {
  readonly lines: readonly OrderLineRow[];
  readonly events: readonly OrderEventRow[];
}

/** Orders of a wearer, newest first, with lines and everything that happened to them. */
export async function listOrders(sql: Db, practiceId: string, wearerId: string): Promise<OrderWithLines[]> {
  const rows = await sql<OrderRow[]>`
    select o.id, o.number, o.request_key, o.visit_id, o.prescription_id, o.placed_at, p.display_name as placed_by_name,
      d.due_at, d.done_at, d.attempts
    from lens_order o join person p on p.id = o.placed_by left join order_dispatch d on d.order_id = o.id
    where o.practice_id = ${practiceId} and o.wearer_id = ${wearerId} order by o.number desc`;
  const ids = rows.map((r) => r.id);
  const lines = await sql<(OrderLineRow & { orderId: string })[]>`
    select id, order_id, eye, mode, lens_id, raw, packs, pack_size, pack_price_minor from order_line
    where practice_id = ${practiceId} and order_id = any (${ids})`;
  const events = await sql<(OrderEventRow & { orderId: string })[]>`
    select order_id, state, at, supplier_reference, due_on, detail from order_event
    where practice_id = ${practiceId} and order_id = any (${ids}) order by sequence`;
  return rows.map((row) => ({
    ...row,
    lines: lines.filter((l) => l.orderId === row.id),
    events: events.filter((e) => e.orderId === row.id),
  }));
}

export async function findOrderByKey(sql: Db, practiceId: string, requestKey: string): Promise<string | null> {
  const [row] = await sql<{ id: string }[]>`
    select id from lens_order where practice_id = ${practiceId} and request_key = ${requestKey}`;
  return row?.id ?? null;
}

export interface NewOrder {
  readonly id: string;
  readonly practiceId: string;
  readonly number: number;
  readonly requestKey: string;
  readonly visitId: string;
  readonly visitVersion: number;
  readonly wearerId: string;
  readonly prescriptionId: string;
  readonly placedAt: string;
  readonly placedBy: string;
}

/** Order, lines, first event and its place in the queue: one transaction of the caller's. */
export async function insertOrder(
  sql: Db,
  order: NewOrder,
  lines: readonly {
    id: string;
    eye: Eye;
    mode: 'final' | 'raw';
    lensId: string | null;
    raw: RawOrder | null;
    packs: number;
    packSize: number;
    packPriceMinor: number;
  }[],
  eventId: string,
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
    values (${eventId}, ${order.practiceId}, ${order.id}, 'placed', ${order.placedAt})`;
  await sql`
    insert into order_dispatch (order_id, practice_id, due_at) values (${order.id}, ${order.practiceId}, ${order.placedAt})`;
}

export interface DispatchRow {
  readonly orderId: string;
  readonly practiceId: string;
  readonly number: number;
  readonly attempts: number;
}

/**
 * Claims one order that is due: its next try is set before anything is sent, so that a crash in between only
 * delays it, and two workers never hold the same one.
 */
export async function claimDispatch(sql: Db, now: string, retryAt: (attempts: number) => string): Promise<DispatchRow | null> {
  const [row] = await sql<DispatchRow[]>`
    select d.order_id, d.practice_id, d.attempts, o.number from order_dispatch d join lens_order o on o.id = d.order_id
    where d.done_at is null and d.due_at <= ${now} and not wearer_under_absolute_stop(o.practice_id, o.wearer_id) order by d.due_at limit 1 for update of d skip locked`;
  if (!row) return null;
  await sql`
    update order_dispatch set attempts = attempts + 1, due_at = ${retryAt(row.attempts)} where order_id = ${row.orderId}`;
  return row;
}

interface Figures {
  readonly familyCode: string;
  readonly sphereD: number;
  readonly cylinderD: number;
  readonly axisDeg: number;
  readonly addBand: string | null;
  readonly baseCurveMm: number | null;
  readonly diameterMm: number | null;
}
interface OnLine {
  readonly eye: Eye;
  readonly packs: number;
}
/** Final figures of a lens, or raw data and no lens. */
export type DispatchLine = OnLine & (({ readonly mode: 'final' } & Figures) | { readonly mode: 'raw'; readonly raw: RawOrder });

export async function listDispatchLines(sql: Db, practiceId: string, orderId: string): Promise<DispatchLine[]> {
  return sql<DispatchLine[]>`
    select o.eye, o.mode, o.raw, f.code as family_code, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band, l.base_curve_mm, l.diameter_mm, o.packs
    from order_line o left join lens l on l.id = o.lens_id left join lens_family_version f on f.id = l.family_version_id
    where o.practice_id = ${practiceId} and o.order_id = ${orderId} order by o.eye desc`;
}

/** Stores the supplier's answer once, however often it comes. */
export async function settleDispatch(
  sql: Db,
  e: {
    id: string;
    practiceId: string;
    orderId: string;
    state: 'acknowledged' | 'backordered' | 'refused';
    at: string;
    supplierReference: string | null;
    dueOn: string | null;
    detail: Readonly<Record<string, string | number>>;
  },
): Promise<void> {
  await sql`
    insert into order_event (id, practice_id, order_id, state, at, supplier_reference, due_on, detail)
    values (${e.id}, ${e.practiceId}, ${e.orderId}, ${e.state}, ${e.at}, ${e.supplierReference}, ${e.dueOn}, ${sql.json({ ...e.detail })})
    on conflict do nothing`;
  await sql`update order_dispatch set done_at = ${e.at}, last_problem = null where order_id = ${e.orderId} and practice_id = ${e.practiceId}`;
}

export async function noteDispatchFailure(sql: Db, f: { id: string; practiceId: string; orderId: string; at: string; problem: string }): Promise<void> {
  await sql`update order_dispatch set last_problem = ${f.problem} where order_id = ${f.orderId} and practice_id = ${f.practiceId}`;
  const [last] = await sql<{ state: string }[]>`
    select state from order_event where practice_id = ${f.practiceId} and order_id = ${f.orderId} order by sequence desc limit 1`;
  // One line a spell of silence, not one a try.
  if (last?.state === 'sendFailed') return;
  await sql`
    insert into order_event (id, practice_id, order_id, state, at, detail)
    values (${f.id}, ${f.practiceId}, ${f.orderId}, 'sendFailed', ${f.at}, ${sql.json({ problem: f.problem })})`;
}

/** Makes a waiting order due at once. */
/** Is an order held because an absolute stop stands for its wearer? */
export async function isHeld(sql: Db, practiceId: string, orderId: string): Promise<boolean> {
  const [row] = await sql<{ held: boolean }[]>`
    select wearer_under_absolute_stop(practice_id, wearer_id) as held from lens_order where practice_id = ${practiceId} and id = ${orderId}`;
  return row?.held ?? false;
}

export async function hastenDispatch(sql: Db, practiceId: string, orderId: string, now: string): Promise<boolean> {
  const rows = await sql`
    update order_dispatch set due_at = ${now}
    where practice_id = ${practiceId} and order_id = ${orderId} and done_at is null returning order_id`;
  return rows.length === 1;
}
