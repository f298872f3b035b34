import 'server-only';
import type postgres from 'postgres';
import type { LensAdd, DeliverTo, Eye, Modality, ShipmentFault } from '../core';
import type { Db } from './client';

/** A line of an order as its announcement is compared with it. */
export interface OrderedLine {
  readonly id: string;
  readonly eye: Eye;
  readonly packs: number;
  readonly packSize: number;
  /** Boxes announced before. */
  readonly announced: number;
  readonly modality: Modality;
  readonly daysPerWeek: number;
  /** Null where a laboratory works it out. */
  readonly lensId: string | null;
  readonly familyCode: string | null;
  readonly sphereD: number | null;
  readonly cylinderD: number | null;
  readonly axisDeg: number | null;
  readonly addBand: LensAdd | null;
  readonly baseCurveMm: number | null;
  readonly diameterMm: number | null;
}

/** An order of a supplier by the practice's number, held; null where that supplier has none such. */
export async function lockOrderOfSupplier(
  sql: Db,
  practiceId: string,
  supplierId: string,
  number: number,
): Promise<{ readonly id: string; readonly wearerId: string; readonly deliverTo: DeliverTo; readonly lines: readonly OrderedLine[] } | null> {
  const [order] = await sql<{ id: string; wearerId: string; deliverTo: DeliverTo }[]>`
    select id, wearer_id, deliver_to from lens_order where practice_id = ${practiceId} and number = ${number} and supplier_id = ${supplierId}`;
  if (!order) return null;
  await sql`select pg_advisory_xact_lock(hashtextextended(${`order|${order.id}`}, 0))`;
  const lines = await sql<OrderedLine[]>`
    select n.id, n.eye, n.packs, n.pack_size, n.lens_id, f.code as family_code, coalesce(f.modality, n.raw ->> 'modality') as modality,
      coalesce(p.days_per_week, 7) as days_per_week, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band, l.base_curve_mm, l.diameter_mm,
      coalesce((select sum(s.packs) from shipment_line s where s.practice_id = n.practice_id and s.order_line_id = n.id), 0)::int as announced
    from order_line n left join lens l on l.id = n.lens_id left join lens_family_version f on f.id = l.family_version_id
    left join prescription p on p.practice_id = n.practice_id and p.id = n.prescription_id
    where n.practice_id = ${practiceId} and n.order_id = ${order.id}`;
  return { ...order, lines };
}

export interface NewSupplierMessage {
  readonly id: string;
  readonly practiceId: string;
  readonly supplierId: string;
  readonly messageRef: string;
  readonly kind: string;
  readonly orderId: string | null;
  readonly body: postgres.JSONValue;
  readonly refused: string | null;
  readonly cameBy: 'call' | 'poll';
  readonly cameAt: string;
}
/** Keeps a message; false where it came before. */
export async function insertSupplierMessage(sql: Db, message: NewSupplierMessage): Promise<boolean> {
  const { count } = await sql`
    insert into supplier_message ${sql({ ...message, body: sql.json(message.body) as unknown as string })}
    on conflict (practice_id, supplier_id, message_ref) do nothing`;
  return count === 1;
}

export interface NewShipmentLine {
  readonly id: string;
  readonly orderLineId: string;
  readonly packs: number;
  readonly gtin: string | null;
  readonly lot: string | null;
  readonly expiresOn: string | null;
  readonly faults: readonly ShipmentFault[];
}
export async function insertShipmentLines(sql: Db, practiceId: string, supplierMessageId: string, lines: readonly NewShipmentLine[]): Promise<void> {
  for (const line of lines) {
    const { faults, ...rest } = line;
    await sql`
      insert into shipment_line (id, practice_id, supplier_message_id, order_line_id, packs, gtin, lot, expires_on, faults)
      values (${rest.id}, ${practiceId}, ${supplierMessageId}, ${rest.orderLineId}, ${rest.packs}, ${rest.gtin}, ${rest.lot}, ${rest.expiresOn}, ${[...faults]}::text[])`;
  }
}

/** A line of an order's story that is told by somebody outside, or by one of the staff. */
export async function insertOrderEvent(
  sql: Db,
  e: {
    readonly id: string;
    readonly practiceId: string;
    readonly orderId: string;
    readonly state: string;
    readonly at: string;
    readonly supplierReference?: string | null;
    readonly dueOn?: string | null;
    readonly detail?: Readonly<Record<string, string | number>>;
    readonly toldBy?: string | null;
  },
): Promise<void> {
  await sql`
    insert into order_event (id, practice_id, order_id, state, at, supplier_reference, due_on, detail, told_by)
    values (${e.id}, ${e.practiceId}, ${e.orderId}, ${e.state}, ${e.at}, ${e.supplierReference ?? null}, ${e.dueOn ?? null}, ${sql.json({ ...e.detail })}, ${e.toldBy ?? null})
    on conflict do nothing`;
}
