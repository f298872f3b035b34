import 'server-only';
import type postgres from 'postgres';
import type { Db } from './client';

/** A message to a wearer: which it is, and its data; words are made by its language when it is sent. */
export interface MessageRow {
  /** Its identity, under which it is sent however often. */
  readonly id: string;
  readonly practiceId: string;
  readonly wearerId: string;
  readonly kind: string;
  readonly data: Readonly<Record<string, postgres.JSONValue>>;
  readonly language: string;
  readonly way: 'mail' | 'text';
  readonly recipient: string;
  readonly attempts: number;
}

/** Writes a message into the outbox, in the transaction of what it tells of: neither is there without the other. */
export async function insertMessage(
  sql: Db,
  message: Omit<MessageRow, 'attempts'> & { readonly writtenAt: string; readonly writtenBy: string | null; readonly dueAt: string },
): Promise<void> {
  await sql`insert into message ${sql({ ...message, data: sql.json(message.data) as unknown as string })}`;
}

/**
 * Claims one message that is due: its next try is set before anything is sent, so that a crash in between only delays it, and
 * two workers never hold the same one.
 */
export async function claimMessage(sql: Db, now: string, retryAt: (attempts: number) => string): Promise<MessageRow | null> {
  const [row] = await sql<MessageRow[]>`
    select id, practice_id, wearer_id, kind, data, language, way, recipient, attempts from message
    where done_at is null and due_at <= ${now} order by due_at limit 1 for update skip locked`;
  if (!row) return null;
  await sql`update message set attempts = attempts + 1, due_at = ${retryAt(row.attempts)} where id = ${row.id}`;
  return row;
}

/** Stores once what became of a message, however often it is told. */
export async function recordMessageDone(sql: Db, done: { id: string; outcome: 'sent' | 'refused'; at: string }): Promise<void> {
  await sql`update message set done_at = ${done.at}, outcome = ${done.outcome}, last_problem = null where id = ${done.id} and done_at is null`;
}

export async function noteMessageFailure(sql: Db, id: string, problem: string): Promise<void> {
  await sql`update message set last_problem = ${problem} where id = ${id} and done_at is null`;
}
