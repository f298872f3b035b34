import 'server-only';
import type { Db } from './client';

/** A cancellation that waits to be brought to its supplier. */
export interface CancelRow {
  readonly orderId: string;
  readonly practiceId: string;
  readonly number: number;
  readonly endpoint: string;
  readonly attempts: number;
}

/** An order that was never sent is not sent any more. @returns false where it was, or is just being, sent */
export async function withdrawDispatch(sql: Db, practiceId: string, orderId: string, at: string): Promise<boolean> {
  const { count } = await sql`
    update order_dispatch set done_at = ${at} where practice_id = ${practiceId} and order_id = ${orderId} and done_at is null and attempts = 0`;
  return count === 1;
}

/** Queues a cancellation; twice is once. */
export async function insertCancel(sql: Db, practiceId: string, orderId: string, at: string): Promise<void> {
  await sql`insert into order_cancel_dispatch (order_id, practice_id, due_at) values (${orderId}, ${practiceId}, ${at}) on conflict (order_id) do update
    set due_at = excluded.due_at, done_at = null, attempts = 0`;
}

/** Claims one that is due: its next try is set before anything is sent. An order still on its way out is cancelled after it got there. */
export async function claimCancel(sql: Db, now: string, retryAt: (attempts: number) => string): Promise<CancelRow | null> {
  const [row] = await sql<CancelRow[]>`
    select c.order_id, c.practice_id, c.attempts, o.number, coalesce(s.endpoint, '') as endpoint
    from order_cancel_dispatch c join lens_order o on o.id = c.order_id left join supplier s on s.id = o.supplier_id
    where c.done_at is null and c.due_at <= ${now}
      and not exists (select 1 from order_dispatch d where d.order_id = c.order_id and d.done_at is null) order by c.due_at limit 1 for update of c skip locked`;
  if (!row) return null;
  await sql`update order_cancel_dispatch set attempts = attempts + 1, due_at = ${retryAt(row.attempts)} where order_id = ${row.orderId}`;
  return row;
}

export async function noteCancelFailure(sql: Db, orderId: string, problem: string): Promise<void> {
  await sql`update order_cancel_dispatch set last_problem = ${problem} where order_id = ${orderId}`;
}

/** The supplier has answered: nothing more is sent of it, nor of the order. */
export async function recordCancelDone(sql: Db, practiceId: string, orderId: string, at: string, cancelled: boolean): Promise<void> {
  await sql`update order_cancel_dispatch set done_at = ${at}, last_problem = null where practice_id = ${practiceId} and order_id = ${orderId}`;
  if (cancelled) await sql`update order_dispatch set done_at = ${at} where practice_id = ${practiceId} and order_id = ${orderId} and done_at is null`;
}
