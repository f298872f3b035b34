import 'server-only';
import type { CatalogueFamily } from '../core';
import type { CatalogueFault } from '../schema/catalogue';
import type { Db } from './client';

export type ImportState = 'waiting' | 'checking' | 'checked' | 'broken' | 'takeAsked' | 'taking' | 'taken' | 'cancelled';

/** A catalogue file on its way in; its bytes are read by the jobs only. */
export interface ImportRow {
  readonly id: string;
  readonly fileName: string;
  readonly state: ImportState;
  readonly cancelAsked: boolean;
  readonly rowsTotal: number;
  readonly rowsDone: number;
  readonly notes: Readonly<Record<string, string | number>>;
  readonly startsOn: string | null;
  readonly createdAt: string;
  readonly createdByName: string;
  readonly settledAt: string | null;
}

const columns = (sql: Db) => sql`
  i.id, i.file_name, i.state, i.cancel_asked, i.rows_total, i.rows_done, i.notes, i.starts_on, i.created_at, i.settled_at, p.display_name as created_by_name`;

export async function insertImport(sql: Db, i: { id: string; practiceId: string; fileName: string; bytes: Uint8Array; at: string; by: string }): Promise<void> {
  await sql`
    insert into catalogue_import (id, practice_id, file_name, bytes, state, created_at, created_by)
    values (${i.id}, ${i.practiceId}, ${i.fileName}, ${Buffer.from(i.bytes)}, 'waiting', ${i.at}, ${i.by})`;
}

export async function findImport(sql: Db, practiceId: string, id: string): Promise<ImportRow | null> {
  const [row] = await sql<ImportRow[]>`
    select ${columns(sql)} from catalogue_import i join person p on p.id = i.created_by where i.practice_id = ${practiceId} and i.id = ${id}`;
  return row ?? null;
}

export async function listImports(sql: Db, practiceId: string): Promise<ImportRow[]> {
  return sql<ImportRow[]>`
    select ${columns(sql)} from catalogue_import i join person p on p.id = i.created_by
    where i.practice_id = ${practiceId} order by i.created_at desc, i.id limit 8`;
}

/** Asks the jobs to go on or to stop; false when the file is not in that state any more. */
export async function askImport(sql: Db, practiceId: string, id: string, ask: { readonly take: string } | { readonly cancel: true }): Promise<boolean> {
  const rows =
    'take' in ask
      ? await sql`
          update catalogue_import set state = 'takeAsked', starts_on = ${ask.take}, rows_done = 0, cancel_asked = false
          where practice_id = ${practiceId} and id = ${id} and state = 'checked' returning id`
      : await sql`
          update catalogue_import set cancel_asked = true,
            state = case when state in ('waiting', 'checked', 'takeAsked') then 'cancelled' else state end,
            bytes = case when state in ('waiting', 'checked', 'takeAsked') then ''::bytea else bytes end
          where practice_id = ${practiceId} and id = ${id} and state not in ('taken', 'cancelled', 'broken') returning id`;
  return rows.length > 0;
}

export interface StoredFault extends CatalogueFault {
  readonly sequence: number;
}
export async function listImportFaults(sql: Db, importId: string, limit: number | null): Promise<StoredFault[]> {
  return sql<StoredFault[]>`
    select sequence, line, gravity, code, data from catalogue_import_fault where import_id = ${importId}
    order by line, sequence limit ${limit}`;
}

export async function countImportFaults(sql: Db, importId: string): Promise<{ readonly stop: number; readonly watch: number }> {
  const [row] = await sql<{ stop: number; watch: number }[]>`
    select count(*) filter (where gravity = 'stop')::int as stop, count(*) filter (where gravity = 'watch')::int as watch
    from catalogue_import_fault where import_id = ${importId}`;
  return row ?? { stop: 0, watch: 0 };
}

export interface ImportFamilyRow {
  readonly code: string;
  readonly name: string;
  readonly lineCount: number;
  readonly faultCount: number;
  readonly change: 'new' | 'changed' | 'same';
}
/** The families of a file, without what they make. */
export async function listImportFamilies(sql: Db, importId: string, most: number): Promise<ImportFamilyRow[]> {
  return sql<ImportFamilyRow[]>`
    select code, coalesce(family ->> 'name', '') as name, line_count, fault_count, change from catalogue_import_family
    where import_id = ${importId} order by fault_count = 0, code limit ${most}`;
}

/** Families of a file and their lines, by what would become of them. */
export interface ImportCounts {
  readonly take: { readonly families: number; readonly lines: number };
  readonly left: number;
  readonly same: number;
}
export async function countImportFamilies(sql: Db, importId: string): Promise<ImportCounts> {
  const [row] = await sql<{ families: number; lines: number; left: number; same: number }[]>`
    select count(*) filter (where fault_count = 0 and change <> 'same')::int as families,
      coalesce(sum(line_count) filter (where fault_count = 0 and change <> 'same'), 0)::int as lines,
      count(*) filter (where fault_count > 0)::int as left, count(*) filter (where fault_count = 0 and change = 'same')::int as same
    from catalogue_import_family where import_id = ${importId}`;
  const { families = 0, lines = 0, left = 0, same = 0 } = row ?? {};
  return { take: { families, lines }, left, same };
}

/** What the jobs took in hand. */
export interface ClaimedImport {
  readonly id: string;
  readonly practiceId: string;
  readonly state: 'checking' | 'taking';
  readonly createdBy: string;
  readonly startsOn: string | null;
  /** Which try this is, 1 the first. */
  readonly attempts: number;
}

/** Seconds after which work in hand counts as left lying: its job was stopped. */
const LEFT_LYING = 60;

/** Files that wait, and those whose job was stopped on the way. */
const waiting = (sql: Db) => sql`
  (state in ('waiting', 'takeAsked') or (state in ('checking', 'taking') and claimed_at < clock_timestamp() - make_interval(secs => ${LEFT_LYING})))`;

/** Is there a file to be worked on? */
export async function isImportWaiting(sql: Db): Promise<boolean> {
  const [row] = await sql`select 1 from catalogue_import where ${waiting(sql)} limit 1`;
  return row !== undefined;
}

/** Takes the oldest file that waits, or one whose job was stopped on the way. */
export async function claimImport(sql: Db): Promise<ClaimedImport | null> {
  const [row] = await sql<ClaimedImport[]>`
    update catalogue_import set claimed_at = clock_timestamp(), attempts = case when state in ('waiting', 'takeAsked') then 1 else attempts + 1 end,
      state = case when state in ('waiting', 'checking') then 'checking' else 'taking' end
    where id = (select id from catalogue_import where ${waiting(sql)} order by created_at limit 1 for update skip locked)
    returning id, practice_id, state, created_by, starts_on, attempts`;
  return row ?? null;
}

export async function readImportBytes(sql: Db, id: string): Promise<Uint8Array> {
  const [row] = await sql<{ bytes: Uint8Array }[]>`select bytes from catalogue_import where id = ${id}`;
  if (!row) throw new Error('The import has no bytes');
  return row.bytes;
}

/** Says how far it is and looks whether to stop; true to stop. */
export async function noteProgress(sql: Db, id: string, done: number, total: number): Promise<boolean> {
  const [row] = await sql<{ cancelAsked: boolean }[]>`
    update catalogue_import set rows_done = ${done}, rows_total = ${total}, claimed_at = clock_timestamp() where id = ${id} returning cancel_asked`;
  return row?.cancelAsked ?? true;
}

/** Says how it came out. A file that is done with is not kept: what it said is in the library, or in its faults. */
export async function settleImport(sql: Db, id: string, state: ImportState, at: string, notes?: Readonly<Record<string, string | number>>): Promise<void> {
  await sql`
    update catalogue_import set state = ${state}, settled_at = ${at}, notes = notes || ${sql.json(notes ?? {})},
      bytes = case when ${state} = 'checked' then bytes else ''::bytea end
    where id = ${id}`;
}

/** Puts what was found beside the file; whatever an earlier try left is gone. */
export async function storeCheck(
  sql: Db,
  importId: string,
  found: {
    readonly faults: readonly CatalogueFault[];
    readonly families: readonly {
      readonly code: string;
      readonly lines: number;
      readonly faults: number;
      readonly change: string;
      readonly family: CatalogueFamily | null;
    }[];
  },
): Promise<void> {
  await sql`delete from catalogue_import_fault where import_id = ${importId}`;
  await sql`delete from catalogue_import_family where import_id = ${importId}`;
  for (let from = 0; from < found.faults.length; from += 2000) {
    const rows = found.faults.slice(from, from + 2000).map((f) => ({ ...f, data: { ...f.data } }));
    await sql`
      insert into catalogue_import_fault (import_id, line, gravity, code, data)
      select ${importId}, line, gravity, code, data from jsonb_to_recordset(${sql.json(rows)}) as f (line integer, gravity text, code text, data jsonb)`;
  }
  for (let from = 0; from < found.families.length; from += 200) {
    const rows = found.families.slice(from, from + 200).map((f) => ({ ...f, family: f.family ?? {} }));
    await sql`
      insert into catalogue_import_family (import_id, code, line_count, fault_count, change, family)
      select ${importId}, code, lines, faults, change, family
      from jsonb_to_recordset(${JSON.stringify(rows)}::text::jsonb) as f (code text, lines integer, faults integer, change text, family jsonb)`;
  }
}

/** Families that may be taken in: read without fault, and different from what is there. */
export async function listTakeable(sql: Db, importId: string): Promise<{ readonly code: string; readonly family: CatalogueFamily }[]> {
  return sql<{ code: string; family: CatalogueFamily }[]>`
    select code, family from catalogue_import_family where import_id = ${importId} and fault_count = 0 and change <> 'same' order by code`;
}
