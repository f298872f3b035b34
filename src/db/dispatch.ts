import 'server-only';
import type { DeliverTo, Eye, OrderKind, RawOrder } from '../core';
import type { Db } from './client';

export interface DispatchRow {
  readonly orderId: string;
  readonly practiceId: string;
  readonly number: number;
  readonly kind: OrderKind;
  /** The practice's day on which it was placed. */
  readonly placedOn: string;
  readonly attempts: number;
  /** Of its supplier; empty for the address that the server was started with. */
  readonly endpoint: string;
  readonly deliverTo: DeliverTo;
  readonly deliveryAddress: string | null;
}

/**
 * Claims one order that is due: its next try is set before anything is sent, so that a crash in between only
 * delays it, and two workers never hold the same one.
 */
export async function claimDispatch(sql: Db, now: string, retryAt: (attempts: number) => string): Promise<DispatchRow | null> {
  const [row] = await sql<DispatchRow[]>`
    select d.order_id, d.practice_id, d.attempts, o.number, o.kind, (o.placed_at at time zone p.time_zone)::date as placed_on,
      coalesce(s.endpoint, '') as endpoint, o.deliver_to, o.delivery_address
    from order_dispatch d join lens_order o on o.id = d.order_id join practice p on p.id = d.practice_id left join supplier s on s.id = o.supplier_id
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
export async function recordSupplierAnswer(
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

/** No answer, or none that can be believed: kept once a spell, not once a try. */
export async function noteDispatchFailure(
  sql: Db,
  f: {
    id: string;
    practiceId: string;
    orderId: string;
    at: string;
    state: 'sendFailed' | 'doubtful';
    detail: { readonly problem: string; readonly said?: string };
  },
): Promise<void> {
  await sql`update order_dispatch set last_problem = ${f.detail.problem} where order_id = ${f.orderId} and practice_id = ${f.practiceId}`;
  const [last] = await sql<{ state: string }[]>`
    select state from order_event where practice_id = ${f.practiceId} and order_id = ${f.orderId} order by sequence desc limit 1`;
  if (last?.state === f.state) return;
  await sql`
    insert into order_event (id, practice_id, order_id, state, at, detail)
    values (${f.id}, ${f.practiceId}, ${f.orderId}, ${f.state}, ${f.at}, ${sql.json({ ...f.detail })})`;
}

/** Does a supplier's name for an order belong to another one already? */
export async function isReferenceUsed(sql: Db, practiceId: string, orderId: string, reference: string): Promise<boolean> {
  const [row] = await sql`
    select 1 from order_event where practice_id = ${practiceId} and supplier_reference = ${reference} and order_id <> ${orderId} limit 1`;
  return row !== undefined;
}

/** Is an order held because an absolute stop stands for its wearer? */
export async function isHeld(sql: Db, practiceId: string, orderId: string): Promise<boolean> {
  const [row] = await sql<{ held: boolean }[]>`
    select wearer_under_absolute_stop(practice_id, wearer_id) as held from lens_order where practice_id = ${practiceId} and id = ${orderId}`;
  return row?.held ?? false;
}

/** Makes a waiting order due at once. */
export async function hastenDispatch(sql: Db, practiceId: string, orderId: string, now: string): Promise<boolean> {
  const rows = await sql`
    update order_dispatch set due_at = ${now}
    where practice_id = ${practiceId} and order_id = ${orderId} and done_at is null returning order_id`;
  return rows.length === 1;
}
