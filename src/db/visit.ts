import 'server-only';
import type { VisitKind, VisitRow } from '../core';
import type { Db } from './client';

export async function findVisit(sql: Db, practiceId: string, id: string): Promise<VisitRow | null> {
  const [row] = await sql<VisitRow[]>`
    select id, practice_id, wearer_id, kind, opened_at, closed_at, version from visit
    where practice_id = ${practiceId} and id = ${id}`;
  return row ?? null;
}

/** Where a page of visits begins: after this one. */
export interface VisitKey {
  readonly openedAt: string;
  readonly id: string;
}

/** Visits of a wearer, newest first, from a key on. */
export const listVisitsPage = (sql: Db, practiceId: string, wearerId: string, after: VisitKey | null, most: number) => sql<VisitRow[]>`
  select id, practice_id, wearer_id, kind, opened_at, closed_at, version from visit
  where practice_id = ${practiceId} and wearer_id = ${wearerId}
    ${after === null ? sql`` : sql`and (opened_at, id) < (${after.openedAt}, ${after.id})`}
  order by opened_at desc, id desc limit ${most}`;

/** Visits whose record counts in one: those before it, and while it is open those opened beside it; nothing found there is passed by working here. */
export const earlierVisits = (sql: Db, v: VisitRow) => sql<{ readonly id: string }[]>`
  select e.id from visit e where e.practice_id = ${v.practiceId} and e.wearer_id = ${v.wearerId} and e.id <> ${v.id}
    ${v.closedAt === null ? sql`` : sql`and e.opened_at <= ${v.openedAt}`}`;

/** Visits opened before one. */
export const visitsBefore = (sql: Db, v: VisitRow) => sql<{ readonly id: string }[]>`
  select e.id from visit e where e.practice_id = ${v.practiceId} and e.wearer_id = ${v.wearerId} and e.opened_at < ${v.openedAt}`;

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

/** How a wearer is held while a visit changes: not at all, together with others, or alone. */
export type Holding = 'none' | 'shared' | 'alone';

/**
 * Raises the version of an open visit, and holds its wearer, so that a stop and a new lens cannot pass each other unseen: a
 * stop asks alone, a lens together with others.
 * @param exactly false: whoever read an older version may go on, and has to look at what changed since
 * @returns the visit as it is then; null when it is closed, or no longer at this version
 */
export async function advanceVisit(
  sql: Db,
  visit: { readonly practiceId: string; readonly id: string; readonly version: number; readonly exactly: boolean },
  hold: Holding,
): Promise<VisitRow | null> {
  const how = { none: sql`limit 0`, shared: sql`for share`, alone: sql`for update` };
  const [row] = await sql<VisitRow[]>`
    with advanced as (
      update visit set version = version + 1
      where practice_id = ${visit.practiceId} and id = ${visit.id} and closed_at is null
        and ${visit.exactly ? sql`version = ${visit.version}` : sql`version >= ${visit.version}`}
      returning id, practice_id, wearer_id, kind, opened_at, closed_at, version),
    held as (select id from wearer where practice_id = ${visit.practiceId} and id in (select wearer_id from advanced) ${how[hold]})
    select a.* from advanced a left join held h on h.id = a.wearer_id`;
  return row ?? null;
}

/** @returns the visit as it is then */
export async function setVisitClosed(sql: Db, practiceId: string, id: string, at: string): Promise<VisitRow | null> {
  const [row] = await sql<VisitRow[]>`
    update visit set closed_at = ${at} where practice_id = ${practiceId} and id = ${id}
    returning id, practice_id, wearer_id, kind, opened_at, closed_at, version`;
  return row ?? null;
}
