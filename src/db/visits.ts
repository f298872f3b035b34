import 'server-only';
import type { Db } from './client';

export type VisitKind = 'firstFit' | 'refit' | 'lesson' | 'aftercare' | 'collection';

export interface VisitRow {
  readonly id: string;
  readonly practiceId: string;
  readonly wearerId: string;
  readonly kind: VisitKind;
  readonly openedAt: string;
  readonly closedAt: string | null;
  readonly version: number;
}

export async function findVisit(sql: Db, practiceId: string, id: string): Promise<VisitRow | null> {
  const [row] = await sql<VisitRow[]>`
    select id, practice_id, wearer_id, kind, opened_at, closed_at, version from visit
    where practice_id = ${practiceId} and id = ${id}`;
  return row ?? null;
}

export async function listVisits(sql: Db, practiceId: string, wearerId: string): Promise<VisitRow[]> {
  return sql<VisitRow[]>`
    select id, practice_id, wearer_id, kind, opened_at, closed_at, version from visit
    where practice_id = ${practiceId} and wearer_id = ${wearerId} order by opened_at desc`;
}

/** @returns false when the appointment has an open visit already */
export async function insertVisit(
  sql: Db,
  v: { id: string; practiceId: string; wearerId: string; kind: VisitKind; appointmentId: string | null; at: string; by: string },
): Promise<boolean> {
  const rows = await sql`
    insert into visit (id, practice_id, wearer_id, appointment_id, kind, opened_at, opened_by)
    values (${v.id}, ${v.practiceId}, ${v.wearerId}, ${v.appointmentId}, ${v.kind}, ${v.at}, ${v.by})
    on conflict (practice_id, appointment_id) where appointment_id is not null and closed_at is null do nothing returning id`;
  return rows.length === 1;
}

/** The open visit of an appointment. */
export async function findOpenVisitOf(sql: Db, practiceId: string, appointmentId: string): Promise<string | null> {
  const [row] = await sql<{ id: string }[]>`
    select id from visit where practice_id = ${practiceId} and appointment_id = ${appointmentId} and closed_at is null`;
  return row?.id ?? null;
}

/**
 * Takes the visit for a change: the lock of everything recorded in it.
 * @returns the new version, or null when the visit moved on, was closed or is not there
 */
export async function advanceVisit(sql: Db, practiceId: string, id: string, version: number): Promise<number | null> {
  const [row] = await sql<{ version: number }[]>`
    update visit set version = version + 1
    where practice_id = ${practiceId} and id = ${id} and version = ${version} and closed_at is null returning version`;
  return row?.version ?? null;
}

export async function setVisitClosed(sql: Db, practiceId: string, id: string, at: string | null): Promise<void> {
  await sql`update visit set closed_at = ${at} where practice_id = ${practiceId} and id = ${id}`;
}

export interface TodayRow {
  readonly appointmentId: string | null;
  readonly wearerId: string;
  readonly name: string;
  readonly birthDate: string;
  readonly recordNumber: number;
  readonly kind: VisitKind;
  readonly startsAt: string;
  readonly room: string | null;
  readonly staff: string | null;
  readonly state: string;
  readonly visitId: string | null;
  readonly visitOpen: boolean | null;
}

/** Appointments between two instants, with the visit opened for each. */
export async function listToday(sql: Db, practiceId: string, from: string, to: string): Promise<TodayRow[]> {
  return sql<TodayRow[]>`
    select a.id as appointment_id, w.id as wearer_id, i.name, i.birth_date, w.record_number, a.kind, a.starts_at, r.name as room,
      p.display_name as staff, a.state, v.id as visit_id, (v.id is not null and v.closed_at is null) as visit_open
    from appointment a
    join wearer w on w.practice_id = a.practice_id and w.id = a.wearer_id
    join wearer_identity i on i.wearer_id = w.id
    left join room r on r.id = a.room_id
    left join person p on p.id = a.staff_id
    left join lateral (
      select id, closed_at from visit where practice_id = a.practice_id and appointment_id = a.id order by opened_at desc limit 1) v on true
    where a.practice_id = ${practiceId} and a.starts_at >= ${from} and a.starts_at < ${to}
    order by a.starts_at, r.sort_order`;
}

export interface DraftRow {
  readonly step: string;
  readonly authorId: string;
  readonly author: string;
  readonly body: unknown;
  readonly sequence: number;
  readonly savedAt: string;
}

export async function listDrafts(sql: Db, practiceId: string, visitId: string): Promise<DraftRow[]> {
  return sql<DraftRow[]>`
    select d.step, d.author_id, p.display_name as author, d.body, d.sequence, d.saved_at
    from draft d join person p on p.id = d.author_id
    where d.practice_id = ${practiceId} and d.visit_id = ${visitId}`;
}

/** Keeps a draft unless a later one of the same author is kept already. */
export async function putDraft(
  sql: Db,
  d: { practiceId: string; visitId: string; step: string; authorId: string; body: Readonly<Record<string, string>>; sequence: number; at: string },
): Promise<boolean> {
  const rows = await sql`
    insert into draft (practice_id, visit_id, step, author_id, body, sequence, saved_at)
    values (${d.practiceId}, ${d.visitId}, ${d.step}, ${d.authorId}, ${sql.json({ ...d.body })}, ${d.sequence}, ${d.at})
    on conflict (visit_id, step, author_id) do update
    set body = excluded.body, sequence = excluded.sequence, saved_at = excluded.saved_at
    where draft.sequence <= excluded.sequence and draft.practice_id = excluded.practice_id
    returning visit_id`;
  return rows.length === 1;
}

export async function deleteDraft(sql: Db, practiceId: string, visitId: string, step: string, authorId: string): Promise<void> {
  await sql`
    delete from draft where practice_id = ${practiceId} and visit_id = ${visitId} and step = ${step} and author_id = ${authorId}`;
}

/** @returns false when there is no such appointment of this wearer */
export async function setAppointmentState(
  sql: Db,
  practiceId: string,
  id: string,
  wearerId: string,
  state: 'booked' | 'arrived' | 'done' | 'missed' | 'cancelled',
): Promise<boolean> {
  const rows = await sql`
    update appointment set state = ${state}, version = version + 1
    where practice_id = ${practiceId} and id = ${id} and wearer_id = ${wearerId} returning id`;
  return rows.length === 1;
}

export async function insertAppointment(
  sql: Db,
  a: {
    id: string;
    practiceId: string;
    wearerId: string;
    roomId: string;
    staffId: string;
    kind: VisitKind;
    startsAt: string;
    chairMinutes: number;
    staffMinutes: number;
  },
): Promise<void> {
  await sql`insert into appointment ${sql(a)}`;
}
