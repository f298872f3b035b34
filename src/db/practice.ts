import 'server-only';
import type { PracticeSettings } from '../core';
import type { Db } from './client';

export interface PracticeRow {
  readonly id: string;
  readonly name: string;
  readonly town: string;
  readonly address: string;
  readonly telephone: string;
  readonly emergencyTelephone: string | null;
  readonly timeZone: string;
  readonly locale: string;
  readonly currency: string;
}

/** A practice with what it has set, newest of each setting, and the version of its lens library. */
export interface PracticeWithSettings extends PracticeRow {
  readonly libraryVersion: number;
  /** Of what it is called and where it is reached. */
  readonly version: number;
  readonly settings: Partial<PracticeSettings>;
}
/** @param hold a press's key, held to the end of the transaction */
export async function findPractice(sql: Db, id: string, hold: string | null = null): Promise<PracticeWithSettings | null> {
  const [row] = await sql<PracticeWithSettings[]>`
    select p.id, p.name, p.town, p.address, p.telephone, p.emergency_telephone, p.time_zone, p.locale, p.currency, p.library_version, p.version,
      coalesce((select jsonb_object_agg(s.key, s.value) from (
        select distinct on (key) key, value from practice_setting where practice_id = p.id order by key, sequence desc) s), '{}') as settings
      ${hold === null ? sql`` : sql`, pg_advisory_xact_lock(hashtextextended(${`${id}|${hold}`}, 0))`}
    from practice p where p.id = ${id}`;
  return row ?? null;
}

/** The one practice of a single-practice installation, for the sign-in page. */
export async function findOnlyPractice(sql: Db): Promise<PracticeRow | null> {
  const rows = await sql<PracticeRow[]>`
    select id, name, town, address, telephone, emergency_telephone, time_zone, locale, currency
    from practice order by created_at limit 2`;
  return rows.length === 1 ? (rows[0] ?? null) : null;
}

export async function insertPractice(sql: Db, practice: PracticeRow, at: string): Promise<void> {
  await sql`insert into practice ${sql({ ...practice, createdAt: at })}`;
  for (const kind of ['wearer', 'prescription', 'order']) {
    await sql`insert into practice_counter (practice_id, kind) values (${practice.id}, ${kind})`;
  }
}

/** What a practice is called and where it is reached. */
export type PracticeDetails = Pick<PracticeRow, 'name' | 'town' | 'address' | 'telephone'> & { readonly emergencyTelephone: string };

/** Changes it, and keeps what it was. @returns false when the version is no longer the one that was read */
export async function updatePractice(
  sql: Db,
  practiceId: string,
  version: number,
  to: PracticeDetails,
  change: { readonly id: string; readonly at: string; readonly by: string },
): Promise<boolean> {
  const [was] = await sql<PracticeDetails[]>`
    select name, town, address, telephone, emergency_telephone from practice where id = ${practiceId} and version = ${version} for update`;
  if (!was) return false;
  await sql`insert into practice_change ${sql({ id: change.id, practiceId, version, was: sql.json({ ...was }), changedAt: change.at, changedBy: change.by })}`;
  await sql`update practice set ${sql({ ...to })}, version = version + 1 where id = ${practiceId}`;
  return true;
}

/** One change of settings at a time: the second of two sees the first. */
export async function holdPractice(sql: Db, practiceId: string): Promise<void> {
  await sql`select id from practice where id = ${practiceId} for update`;
}

/** So many numbers of a kind in a row. @returns the first of them */
export async function takeNumbers(sql: Db, practiceId: string, kind: 'wearer' | 'prescription' | 'order', count: number): Promise<number> {
  const [row] = await sql<{ first: number }[]>`
    update practice_counter set next_value = next_value + ${count}
    where practice_id = ${practiceId} and kind = ${kind} returning next_value - ${count} as first`;
  if (!row) throw new Error(`No ${kind} counter for the practice`);
  return row.first;
}

/** The next number of a kind, without gaps within a transaction. */
export const nextNumber = (sql: Db, practiceId: string, kind: 'wearer' | 'prescription' | 'order'): Promise<number> => takeNumbers(sql, practiceId, kind, 1);

/** Every practice of the database, and by which clock it lives. */
export const listPractices = (sql: Db) => sql<{ readonly id: string; readonly timeZone: string }[]>`select id, time_zone from practice order by id`;
