import 'server-only';
import type { Eye, OrderKind, OrderState } from '../core';
import type { Db } from './client';

/** What of an order is still to come for one eye. */
export interface AwaitedLine {
  readonly eye: Eye;
  readonly ordered: number;
  readonly received: number;
  readonly familyName: string;
  /** Null where a laboratory works it out. */
  readonly power: { readonly sphere: number; readonly cylinder: number; readonly axis: number } | null;
  readonly add: string | null;
}
export interface AwaitedOrder {
  readonly orderId: string;
  readonly number: number;
  readonly kind: OrderKind;
  readonly wearerId: string;
  readonly wearerName: string;
  readonly placedAt: string;
  readonly state: OrderState;
  /** The supplier's day; null while nobody answered. */
  readonly dueOn: string | null;
  readonly lines: readonly AwaitedLine[];
}

/** Orders of the practice of which something is still to come, the one due first at the top. */
export function listAwaitedOrders(sql: Db, practiceId: string) {
  return sql<AwaitedOrder[]>`
    select o.id as order_id, o.number, o.kind, o.wearer_id, i.name as wearer_name, o.placed_at, e.state, d.due_on, l.lines
    from lens_order o
    join wearer_identity i on i.wearer_id = o.wearer_id
    join lateral (select state from order_event where practice_id = o.practice_id and order_id = o.id order by sequence desc limit 1) e on true
    left join lateral (
      select due_on from order_event where practice_id = o.practice_id and order_id = o.id and due_on is not null order by sequence desc limit 1) d on true
    join lateral (
      select jsonb_agg(jsonb_build_object('eye', x.eye, 'ordered', x.packs, 'received', x.received, 'familyName', x.family_name, 'add', x.add_band,
          'power', case when x.lens_id is null then null else jsonb_build_object('sphere', x.sphere_d, 'cylinder', x.cylinder_d, 'axis', x.axis_deg) end)
          order by x.eye desc) as lines, bool_or(x.received < x.packs) as awaited
      from (
        select n.*, coalesce(f.name, n.raw ->> 'familyName', '') as family_name, s.sphere_d, s.cylinder_d, s.axis_deg, s.add_band,
          coalesce((select sum(r.packs) from order_receipt r where r.practice_id = n.practice_id and r.order_line_id = n.id), 0)::int as received
        from order_line n left join lens s on s.id = n.lens_id left join lens_family_version f on f.id = s.family_version_id
        where n.practice_id = o.practice_id and n.order_id = o.id) x) l on true
    where o.practice_id = ${practiceId} and l.awaited
      and not exists (select 1 from order_event f where f.practice_id = o.practice_id and f.order_id = o.id and f.state = 'refused')
    order by d.due_on nulls first, o.number limit 200`;
}
