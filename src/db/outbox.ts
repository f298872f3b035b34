import 'server-only';
import type postgres from 'postgres';
import type { ContactChoice, ContactWay, MessageData, OutboxMessage } from '../core';
import type { Db } from './client';

/** How a wearer last said that they want to be written to. */
export const newestContact = (sql: Db, practiceId: string, wearerId: string) => sql<ContactChoice[]>`
  select c.way, c.recipient, c.chosen_at, p.display_name as recorded_by_name from contact_choice c join person p on p.id = c.recorded_by
  where c.practice_id = ${practiceId} and c.wearer_id = ${wearerId} order by c.sequence desc limit 1`;

export async function insertContact(
  sql: Db,
  c: {
    readonly id: string;
    readonly practiceId: string;
    readonly wearerId: string;
    readonly way: ContactWay;
    readonly recipient: string | null;
    readonly chosenAt: string;
    readonly recordedBy: string;
  },
): Promise<void> {
  await sql`insert into contact_choice ${sql({ ...c })}`;
}

/** When and by whom a message is written, and from when on it may go. */
export interface Written {
  readonly at: string;
  readonly by: string | null;
  readonly dueAt: string;
}

/**
 * Writes a message to a wearer who agreed to be written to; once for what it tells of.
 * @param about names what it tells of, as no other wearer's message does: the same is not written twice
 * @returns false where they did not agree, or it is written already
 */
export async function writeMessage(
  sql: Db,
  practiceId: string,
  wearerId: string,
  data: MessageData,
  about: string,
  { at, by, dueAt }: Written,
): Promise<boolean> {
  const { count } = await sql`
    insert into message (id, practice_id, wearer_id, kind, data, language, way, recipient, written_at, written_by, due_at, about)
    select gen_random_uuid(), ${practiceId}, ${wearerId}, ${data.kind}, ${sql.json(data)}, i.language, c.way, c.recipient, ${at}, ${by}, ${dueAt}, ${about}
    from wearer_identity i join lateral (select way, recipient from contact_choice k
      where k.practice_id = ${practiceId} and k.wearer_id = i.wearer_id order by k.sequence desc limit 1) c on c.way <> 'none'
    where i.wearer_id = ${wearerId} on conflict do nothing`;
  return count === 1;
}

/** The newest choice of a wearer of the statement around. */
const chosen = (sql: Db, practiceId: string, wearerId: postgres.PendingQuery<postgres.Row[]>) => sql`
  lateral (select k.way, k.recipient from contact_choice k where k.practice_id = ${practiceId} and k.wearer_id = ${wearerId} order by k.sequence desc limit 1) c`;

/** Wearers written to in one statement: a day of a hundred thousand would outlast what one may take. */
const WRITTEN_AT_ONCE = 2000;

/**
 * Writes to everybody whose lenses run low, whose prescription still holds, whom no stop or agreed day keeps, and who agreed; each
 * once for the day on which they run out.
 * @param of.after the last wearer of the batch before; null for the first
 * @returns how many, and the last wearer looked at; null once all were
 */
export async function writeReorderReminders(
  sql: Db,
  practiceId: string,
  of: Written & { readonly today: string; readonly from: string; readonly after: string | null },
): Promise<{ readonly written: number; readonly last: string | null }> {
  const [row] = await sql<{ written: number; last: string | null }[]>`
    with batch as materialized (
      select distinct of_wearer_id from eye_runway
      where practice_id = ${practiceId} and due_on >= ${of.from} and due_on <= ${of.today} and expires_on >= ${of.today} and on_the_way = 0
        and ${of.after === null ? sql`true` : sql`of_wearer_id > ${of.after}`}
      order by of_wearer_id limit ${WRITTEN_AT_ONCE}),
    done as (insert into message (id, practice_id, wearer_id, kind, data, language, way, recipient, written_at, written_by, due_at, about)
    select gen_random_uuid(), ${practiceId}, d.of_wearer_id, 'reorderDue', jsonb_build_object('kind', 'reorderDue', 'runOut', d.run_out, 'eyes', d.eyes),
      i.language, c.way, c.recipient, ${of.at}, ${of.by}, ${of.dueAt}, d.of_wearer_id || ' runOut ' || d.run_out
    from (select r.of_wearer_id, min(r.run_out) as run_out, jsonb_agg(r.eye order by r.eye desc) as eyes
      from batch b join eye_runway r on r.practice_id = ${practiceId} and r.of_wearer_id = b.of_wearer_id
      where r.due_on >= ${of.from} and r.due_on <= ${of.today} and r.expires_on >= ${of.today} and r.on_the_way = 0
      group by r.of_wearer_id) d
    join wearer_identity i on i.wearer_id = d.of_wearer_id
    join ${chosen(sql, practiceId, sql`d.of_wearer_id`)} on c.way <> 'none'
    where not wearer_under_absolute_stop(${practiceId}, d.of_wearer_id)
    on conflict do nothing returning 1)
    select (select count(*) from done)::int as written,
      case when (select count(*) from batch) = ${WRITTEN_AT_ONCE} then (select of_wearer_id from batch order by of_wearer_id desc limit 1) end as last`;
  return row ?? { written: 0, last: null };
}

/** Writes to everybody who has an appointment between two moments and agreed; each once for a time. @returns how many */
export async function writeAppointmentReminders(sql: Db, practiceId: string, of: Written & { readonly from: string; readonly to: string }): Promise<number> {
  const { count } = await sql`
    insert into message (id, practice_id, wearer_id, kind, data, language, way, recipient, written_at, written_by, due_at, about)
    select gen_random_uuid(), ${practiceId}, a.wearer_id, 'appointment',
      jsonb_build_object('kind', 'appointment', 'appointmentId', a.id, 'startsAt', to_char(a.starts_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS".000Z"'), 'minutes', a.chair_minutes, 'visit', a.kind),
      i.language, c.way, c.recipient, ${of.at}, ${of.by}, ${of.dueAt}, a.id || ' ' || extract(epoch from a.starts_at)::bigint
    from appointment a join wearer_identity i on i.wearer_id = a.wearer_id
    join ${chosen(sql, practiceId, sql`a.wearer_id`)} on c.way <> 'none'
    where a.practice_id = ${practiceId} and a.starts_at >= ${of.from} and a.starts_at < ${of.to} and a.state = 'booked'
    on conflict do nothing`;
  return count;
}

const columns = (sql: Db) => sql`
  m.id, m.wearer_id, i.name as wearer_name, m.data, m.language, m.way, m.recipient, m.written_at, m.due_at, m.done_at, m.outcome, p.display_name as done_by_name`;
const joined = (sql: Db) => sql`from message m join wearer_identity i on i.wearer_id = m.wearer_id left join person p on p.id = m.done_by`;

/** Messages that wait, the one due first at the top. */
export const listOutbox = (sql: Db, practiceId: string, most: number) => sql<OutboxMessage[]>`
  select ${columns(sql)} ${joined(sql)} where m.practice_id = ${practiceId} and m.done_at is null order by m.due_at, m.id limit ${most}`;

/** The messages done with last. */
export const listMessagesDone = (sql: Db, practiceId: string, most: number) => sql<OutboxMessage[]>`
  select ${columns(sql)} ${joined(sql)} where m.practice_id = ${practiceId} and m.done_at is not null order by m.done_at desc limit ${most}`;

export async function findMessage(sql: Db, practiceId: string, id: string): Promise<OutboxMessage | null> {
  const [row] = await sql<OutboxMessage[]>`select ${columns(sql)} ${joined(sql)} where m.practice_id = ${practiceId} and m.id = ${id}`;
  return row ?? null;
}

/** Somebody sent a message, or decided not to; false where that was said before. */
export async function markMessage(
  sql: Db,
  practiceId: string,
  id: string,
  done: { readonly outcome: 'sent' | 'notSent'; readonly at: string; readonly by: string },
): Promise<boolean> {
  const { count } = await sql`
    update message set done_at = ${done.at}, outcome = ${done.outcome}, done_by = ${done.by} where practice_id = ${practiceId} and id = ${id} and done_at is null`;
  return count === 1;
}
