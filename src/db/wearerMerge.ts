import 'server-only';
import type { Db } from './client';

/** A record as whoever merges sees it: who it is, and how much hangs on it; nothing clinical. */
export interface MergeRecord {
  readonly id: string;
  readonly recordNumber: number;
  readonly version: number;
  readonly name: string;
  readonly birthDate: string;
  readonly telephone: string | null;
  readonly occupation: string | null;
  readonly visits: number;
  readonly lastVisitAt: string | null;
  readonly openVisit: boolean;
  readonly prescriptions: number;
  readonly orders: number;
  /** The record number that it is part of already. */
  readonly mergedInto: number | null;
}

const records = (sql: Db) => sql`
  select w.id, w.record_number, w.version, i.name, i.birth_date, i.telephone, i.occupation, m.record_number as merged_into,
    (select count(*)::int from visit v where v.practice_id = w.practice_id and v.wearer_id = w.id) as visits,
    (select max(v.opened_at) from visit v where v.practice_id = w.practice_id and v.wearer_id = w.id) as last_visit_at,
    exists (select 1 from visit v where v.practice_id = w.practice_id and v.wearer_id = w.id and v.closed_at is null) as open_visit,
    (select count(*)::int from prescription p where p.practice_id = w.practice_id and p.wearer_id = w.id) as prescriptions,
    (select count(*)::int from lens_order o where o.practice_id = w.practice_id and o.wearer_id = w.id) as orders
  from wearer w join wearer_identity i on i.wearer_id = w.id left join wearer m on m.id = w.merged_into`;

/** Records by their numbers. */
export const listMergeRecords = (sql: Db, practiceId: string, numbers: readonly number[]) => sql<MergeRecord[]>`
  ${records(sql)} where w.practice_id = ${practiceId} and w.record_number = any(${numbers as number[]}::int[])`;

/** Two records, held to the end of the transaction: nothing new is recorded for either meanwhile. */
export async function lockMergeRecords(sql: Db, practiceId: string, ids: readonly string[]): Promise<MergeRecord[]> {
  await sql`select id from wearer where practice_id = ${practiceId} and id = any(${ids as string[]}::uuid[]) order by id for update`;
  return sql<MergeRecord[]>`${records(sql)} where w.practice_id = ${practiceId} and w.id = any(${ids as string[]}::uuid[])`;
}

export interface WearerMerge {
  readonly id: string;
  readonly practiceId: string;
  readonly fromId: string;
  readonly intoId: string;
  readonly reason: string;
  /** Why they are one person whose birth dates differ. */
  readonly birthDatesReason: string | null;
  readonly mergedAt: string;
  readonly mergedBy: string;
}

/** Makes one record part of another: all that was recorded for it belongs to the other. Both are held. */
export async function mergeWearer(sql: Db, merge: WearerMerge): Promise<void> {
  await sql`insert into wearer_merge ${sql({ ...merge })}`;
  await sql`select merge_wearer_rows(${merge.id})`;
}

/** A merge that stands. */
export async function findMerge(sql: Db, practiceId: string, id: string): Promise<Pick<WearerMerge, 'id' | 'fromId' | 'intoId'> | null> {
  const [row] = await sql<Pick<WearerMerge, 'id' | 'fromId' | 'intoId'>[]>`
    select m.id, m.from_id, m.into_id from wearer_merge m
    where m.practice_id = ${practiceId} and m.id = ${id} and not exists (select 1 from wearer_merge_undone u where u.merge_id = m.id)`;
  return row ?? null;
}

/** Takes two merged records apart. Both are held. @returns false where something recorded since belongs to both */
export async function unmergeWearer(
  sql: Db,
  undone: { readonly mergeId: string; readonly practiceId: string; readonly reason: string; readonly undoneAt: string; readonly undoneBy: string },
): Promise<boolean> {
  const [row] = await sql<{ done: boolean }[]>`select unmerge_wearer_rows(${undone.mergeId}) as done`;
  if (row?.done !== true) return false;
  await sql`insert into wearer_merge_undone ${sql({ ...undone })}`;
  return true;
}

export interface MergeRow {
  readonly id: string;
  readonly fromNumber: number;
  readonly fromName: string;
  readonly intoNumber: number;
  readonly intoName: string;
  readonly reason: string;
  readonly mergedAt: string;
  readonly birthDatesReason: string | null;
  readonly mergedByName: string;
  readonly undoneAt: string | null;
  readonly undoneByName: string | null;
  readonly undoneReason: string | null;
}

/** What was merged, newest first. */
export const listMerges = (sql: Db, practiceId: string) => sql<MergeRow[]>`
  select m.id, f.record_number as from_number, fi.name as from_name, t.record_number as into_number, ti.name as into_name, m.reason,
    m.birth_dates_reason, m.merged_at, p.display_name as merged_by_name, u.undone_at, q.display_name as undone_by_name, u.reason as undone_reason
  from wearer_merge m
  join wearer f on f.id = m.from_id join wearer_identity fi on fi.wearer_id = f.id
  join wearer t on t.id = m.into_id join wearer_identity ti on ti.wearer_id = t.id
  join person p on p.id = m.merged_by
  left join wearer_merge_undone u on u.merge_id = m.id left join person q on q.id = u.undone_by
  where m.practice_id = ${practiceId} order by m.merged_at desc, m.id limit 50`;

/** The record that a merged one is part of now, through as many merges as there were; null for one that stands by itself. */
export async function findMergedInto(sql: Db, practiceId: string, wearerId: string): Promise<string | null> {
  const [row] = await sql<{ id: string }[]>`
    with recursive up as (
      select id, merged_into from wearer where practice_id = ${practiceId} and id = ${wearerId}
      union all
      select w.id, w.merged_into from up join wearer w on w.practice_id = ${practiceId} and w.id = up.merged_into)
    select id from up where merged_into is null and id <> ${wearerId}`;
  return row?.id ?? null;
}
