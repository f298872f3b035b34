import 'server-only';
import type postgres from 'postgres';
import type { Db } from './client';

/** A wearer by id, or by the column of a statement around it. */
export type WearerRef = string | postgres.PendingQuery<postgres.Row[]>;

/** Which of what a wearer has: the newest so many, and those of one visit; all of them without. */
export interface Newest {
  readonly most: number;
  readonly visitId: string | null;
}

/**
 * Orders of lenses to wear that count for what a wearer has: the newest, the newest of each eye that was not refused, and those
 * that the lenses at home came from. Orders of one eye do not push out those of the other.
 */
export const countingOrders = (sql: Db, practiceId: string, wearerId: WearerRef, { most, visitId }: Newest) => sql`
  select o.id from lens_order o where o.practice_id = ${practiceId} and o.wearer_id = ${wearerId} and o.kind = 'supply' and (
    o.visit_id = ${visitId}::uuid
    or o.id in (select n.id from lens_order n where n.practice_id = ${practiceId} and n.wearer_id = ${wearerId} and n.kind = 'supply'
      order by n.number desc limit ${most})
    or o.id in (select x.id from (
      select n.id, row_number() over (partition by l.eye order by n.number desc) as place
      from lens_order n join order_line l on l.practice_id = n.practice_id and l.order_id = n.id
      where n.practice_id = ${practiceId} and n.wearer_id = ${wearerId} and n.kind = 'supply'
        and not exists (select 1 from order_event e where e.practice_id = n.practice_id and e.order_id = n.id and e.state in ('refused', 'cancelled'))) x where x.place = 1)
    or o.id in (select x.order_id from (
      select l.order_id, row_number() over (partition by h.eye order by h.recorded_at desc, h.visit_version desc) as place
      from hand_over h join order_line l on l.practice_id = h.practice_id and l.id = h.order_line_id
      where h.practice_id = ${practiceId} and h.wearer_id = ${wearerId} and not h.voided
        and not exists (select 1 from hand_over c where c.practice_id = h.practice_id and c.corrects_id = h.id)) x where x.place = 1))`;
