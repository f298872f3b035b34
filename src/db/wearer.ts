import 'server-only';
import type { IdentityChangeRow, WearerRow } from '../core';
import type { Db } from './client';

/** What is read of a wearer, `w`, and who it is, `i`. */
export const wearerColumns = (sql: Db) => sql`
  w.id, w.record_number, w.version, i.name, i.birth_date, i.telephone, i.occupation, i.guardian, i.language`;

/** A wearer as they are now. */
export const wearerRow = (sql: Db, practiceId: string, id: string) => sql<WearerRow[]>`
  select ${wearerColumns(sql)} from wearer w join wearer_identity i on i.wearer_id = w.id
  where w.practice_id = ${practiceId} and w.id = ${id} and w.merged_into is null`;

export async function findWearer(sql: Db, practiceId: string, id: string): Promise<WearerRow | null> {
  const [row] = await wearerRow(sql, practiceId, id);
  return row ?? null;
}

export async function insertWearer(
  sql: Db,
  practiceId: string,
  wearer: {
    id: string;
    recordNumber: number;
    name: string;
    birthDate: string;
    telephone: string | null;
    occupation: string | null;
    guardian: string | null;
    at: string;
  },
): Promise<void> {
  await sql`
    insert into wearer (id, practice_id, record_number, created_at)
    values (${wearer.id}, ${practiceId}, ${wearer.recordNumber}, ${wearer.at})`;
  await sql`
    insert into wearer_identity (wearer_id, practice_id, name, birth_date, telephone, occupation, guardian)
    values (${wearer.id}, ${practiceId}, ${wearer.name}, ${wearer.birthDate}, ${wearer.telephone}, ${wearer.occupation}, ${wearer.guardian})`;
}

/** @returns false when the version is no longer the one that was read */
export async function updateIdentity(
  sql: Db,
  practiceId: string,
  wearer: { id: string; version: number; name: string; birthDate: string; telephone: string | null; occupation: string | null; guardian: string | null },
  change: { readonly id: string; readonly at: string; readonly by: string },
): Promise<boolean> {
  const rows = await sql`
    update wearer set version = version + 1
    where practice_id = ${practiceId} and id = ${wearer.id} and version = ${wearer.version} returning id`;
  if (rows.length === 0) return false;
  // What it was stays on record, with who changed it and when.
  await sql`
    insert into wearer_identity_change (id, practice_id, wearer_id, version, was, changed_at, changed_by)
    select ${change.id}, practice_id, wearer_id, ${wearer.version},
      jsonb_build_object('name', name, 'birthDate', birth_date, 'telephone', telephone, 'occupation', occupation, 'guardian', guardian),
      ${change.at}, ${change.by}
    from wearer_identity where practice_id = ${practiceId} and wearer_id = ${wearer.id}`;
  await sql`
    update wearer_identity set name = ${wearer.name}, birth_date = ${wearer.birthDate}, telephone = ${wearer.telephone},
      occupation = ${wearer.occupation}, guardian = ${wearer.guardian}
    where practice_id = ${practiceId} and wearer_id = ${wearer.id}`;
  return true;
}

/** What a wearer's identity was, newest change first. */
export function listIdentityChanges(sql: Db, practiceId: string, wearerId: string, most: number) {
  return sql<IdentityChangeRow[]>`
    select c.version, c.was, c.changed_at, p.display_name as changed_by_name
    from wearer_identity_change c join person p on p.id = c.changed_by
    where c.practice_id = ${practiceId} and c.wearer_id = ${wearerId} order by c.version desc limit ${most}`;
}

/** The record `w` that a record `d` is, or is part of: whoever was merged is known by both names. */
const standing = (sql: Db) => sql`join wearer w on w.id = coalesce(d.merged_into, d.id)`;

/** Wearers of the same name and birth date: asked about before a second record is made. */
export async function findNamesakes(sql: Db, practiceId: string, name: string, birthDate: string): Promise<WearerRow[]> {
  return sql<WearerRow[]>`
    select distinct ${wearerColumns(sql)} from wearer_identity s join wearer d on d.id = s.wearer_id
      ${standing(sql)} join wearer_identity i on i.wearer_id = w.id
    where d.practice_id = ${practiceId} and s.name = ${name} and s.birth_date = ${birthDate}`;
}

/** A wearer as a list names one. */
export interface ListedWearer {
  readonly id: string;
  readonly recordNumber: number;
  readonly name: string;
  readonly birthDate: string;
  readonly telephone: string | null;
  readonly occupation: string | null;
  readonly guardian: string | null;
}

/** Many wearers at once. */
export async function insertWearers(sql: Db, practiceId: string, wearers: readonly ListedWearer[], at: string): Promise<void> {
  const rows = sql.json(wearers.map((w) => ({ ...w })));
  await sql`
    insert into wearer (id, practice_id, record_number, created_at)
    select x.id, ${practiceId}, x."recordNumber", ${at} from jsonb_to_recordset(${rows}) as x (id uuid, "recordNumber" int)`;
  await sql`
    insert into wearer_identity (wearer_id, practice_id, name, birth_date, telephone, occupation, guardian)
    select x.id, ${practiceId}, x.name, x."birthDate", x.telephone, x.occupation, x.guardian
    from jsonb_to_recordset(${rows}) as x (id uuid, name text, "birthDate" date, telephone text, occupation text, guardian text)`;
}

/** Wearers here who have the name and birth date of one in a list. */
export async function listNamesakes(
  sql: Db,
  practiceId: string,
  of: readonly { readonly name: string; readonly birthDate: string }[],
): Promise<readonly { readonly name: string; readonly birthDate: string; readonly recordNumber: number }[]> {
  return sql<{ name: string; birthDate: string; recordNumber: number }[]>`
    select i.name, i.birth_date, w.record_number
    from unnest(${of.map((o) => o.name)}::text[], ${of.map((o) => o.birthDate)}::date[]) as o (name, birth_date)
    join wearer_identity i on i.practice_id = ${practiceId} and i.birth_date = o.birth_date and lower(i.name) = lower(o.name)
    join wearer d on d.id = i.wearer_id ${standing(sql)}`;
}
