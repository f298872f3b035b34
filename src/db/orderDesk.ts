import 'server-only';
import {
  stageOf,
  type Eye,
  type LensIdentity,
  type OrderKind,
  type OrderStage,
  type OrderState,
  type ShipmentFault,
  type ShipmentLine,
  type WrittenAim,
} from '../core';
import type { Db } from './client';

/** What of an order is still to come for one eye. */
export interface AwaitedLine {
  readonly eye: Eye;
  readonly ordered: number;
  readonly received: number;
  /** Boxes that the supplier announced, and what is wrong with some. */
  readonly announced: number;
  readonly faults: readonly ShipmentFault[];
  readonly familyName: string;
  /** Null where a laboratory works it out. */
  readonly power: { readonly sphere: number; readonly cylinder: number; readonly axis: number } | null;
  readonly add: string | null;
  /** What the eye is to see with it. */
  readonly aim: WrittenAim | null;
}
export interface AwaitedOrder {
  readonly orderId: string;
  readonly number: number;
  readonly kind: OrderKind;
  readonly wearerId: string;
  readonly wearerName: string;
  readonly placedAt: string;
  readonly stage: OrderStage;
  readonly supplierName: string | null;
  /** The supplier's day; null while nobody answered. */
  readonly dueOn: string | null;
  readonly lines: readonly AwaitedLine[];
}

interface AwaitedRow extends Omit<AwaitedOrder, 'stage' | 'lines'> {
  readonly states: readonly OrderState[];
  readonly lines: readonly (Omit<AwaitedLine, 'announced' | 'faults'> & { readonly shipped: readonly Pick<ShipmentLine, 'packs' | 'faults'>[] })[];
}

/** Orders that a page of them has. */
export const MOST_AWAITED = 200;

/** Orders of the practice of which something is still to come, the one due first at the top; one more than a page has where there are more. */
export async function listAwaitedOrders(sql: Db, practiceId: string): Promise<AwaitedOrder[]> {
  const rows = await sql<AwaitedRow[]>`
    with page as materialized (
      select order_id, due_on from order_open where practice_id = ${practiceId} order by due_on nulls first, order_id limit ${MOST_AWAITED + 1})
    select o.id as order_id, o.number, o.kind, o.wearer_id, i.name as wearer_name, o.placed_at, p.name as supplier_name, e.states, w.due_on, l.lines
    from page w
    join lens_order o on o.practice_id = ${practiceId} and o.id = w.order_id
    join wearer_identity i on i.wearer_id = o.wearer_id
    left join supplier p on p.id = o.supplier_id
    join lateral (select jsonb_agg(state order by sequence) as states from order_event where practice_id = o.practice_id and order_id = o.id) e on true
    join lateral (
      select jsonb_agg(jsonb_build_object('eye', x.eye, 'ordered', x.packs, 'received', x.received, 'shipped', x.shipped, 'familyName', x.family_name, 'add', x.add_band, 'aim', x.aim,
          'power', case when x.lens_id is null then null else jsonb_build_object('sphere', x.sphere_d, 'cylinder', x.cylinder_d, 'axis', x.axis_deg) end)
          order by x.eye desc) as lines
      from (
        select n.*, e.aim, coalesce(f.name, n.raw ->> 'familyName', '') as family_name, s.sphere_d, s.cylinder_d, s.axis_deg, s.add_band,
          coalesce((select sum(r.packs) from order_receipt r where r.practice_id = n.practice_id and r.order_line_id = n.id), 0)::int as received,
          coalesce((select jsonb_agg(jsonb_build_object('packs', h.packs, 'faults', h.faults)) from shipment_line h
            where h.practice_id = n.practice_id and h.order_line_id = n.id), '[]') as shipped
        from order_line n
        -- One by one, by its key: left to itself the planner walks through all lenses of the practice for each order.
        left join lateral (select family_version_id, sphere_d, cylinder_d, axis_deg, add_band from lens where id = n.lens_id limit 1) s on true
        left join lateral (select aim from prescription_eye where prescription_id = n.prescription_id and eye = n.eye limit 1) e on true
        left join lateral (select name from lens_family_version where id = s.family_version_id limit 1) f on true
        where n.practice_id = o.practice_id and n.order_id = o.id) x) l on true
    order by w.due_on nulls first, o.number`;
  return rows.map(({ states, lines, ...row }) => ({
    ...row,
    lines: lines.map(({ shipped, ...line }) => ({
      ...line,
      announced: shipped.reduce((sum, s) => sum + s.packs, 0),
      faults: [...new Set(shipped.flatMap((s) => s.faults))],
    })),
    stage: stageOf({
      events: states.map((state) => ({ state })),
      lines: lines.map((l) => ({ packs: l.ordered })),
      receipts: lines.map((l) => ({ packs: l.received, handedOver: false })),
      shipped: lines.flatMap((l) => l.shipped),
    }),
  }));
}

/** Orders that wait for a lens, in whatever version of its family, the oldest first. */
export const listOrdersAwaiting = (sql: Db, practiceId: string, lens: LensIdentity) => sql<{ readonly number: number; readonly wearerName: string }[]>`
  select o.number, i.name as wearer_name
  from lens l join lens_family_version f on f.id = l.family_version_id and f.code = ${lens.familyCode}
  join order_line n on n.practice_id = l.practice_id and n.lens_id = l.id
  join lens_order o on o.practice_id = n.practice_id and o.id = n.order_id join wearer_identity i on i.wearer_id = o.wearer_id
  where l.practice_id = ${practiceId} and l.sphere_d = ${lens.sphereD} and l.cylinder_d = ${lens.cylinderD}
    and (l.cylinder_d = 0 or l.axis_deg = ${lens.axisDeg}) and l.add_band is not distinct from ${lens.addBand}
    and l.base_curve_mm is not distinct from ${lens.baseCurveMm} and l.diameter_mm is not distinct from ${lens.diameterMm}
    and coalesce((select sum(r.packs) from order_receipt r where r.practice_id = n.practice_id and r.order_line_id = n.id), 0) < n.packs
    and not exists (select 1 from order_event e where e.practice_id = o.practice_id and e.order_id = o.id and e.state in ('refused', 'cancelled'))
  order by o.number limit 3`;
