import 'server-only';
import type { ReorderCall, ReorderOutcome } from '../core';
import type { Db } from './client';

export interface NewReorderCall {
  readonly id: string;
  readonly practiceId: string;
  readonly wearerId: string;
  readonly outcome: ReorderOutcome;
  readonly orderId: string | null;
  readonly laterOn: string | null;
  readonly note: string | null;
  readonly calledAt: string;
  readonly calledBy: string;
}
export async function insertReorderCall(sql: Db, call: NewReorderCall): Promise<void> {
  await sql`insert into reorder_call ${sql({ ...call })}`;
}

/** The last calls of a wearer, newest first. */
export const listReorderCalls = (sql: Db, practiceId: string, wearerId: string, most: number) => sql<ReorderCall[]>`
  select c.id, c.outcome, o.number as order_number, c.later_on, c.note, c.called_at, p.display_name as called_by_name
  from reorder_call c join person p on p.id = c.called_by left join lens_order o on o.practice_id = c.practice_id and o.id = c.order_id
  where c.practice_id = ${practiceId} and c.wearer_id = ${wearerId} order by c.called_at desc, c.id limit ${most}`;
