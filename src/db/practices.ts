import 'server-only';
import type { PracticeSettings, SettingKey, SettingValue } from '../core';
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

export async function findPractice(sql: Db, id: string): Promise<PracticeRow | null> {
  const [row] = await sql<PracticeRow[]>`
    select id, name, town, address, telephone, emergency_telephone, time_zone, locale, currency from practice where id = ${id}`;
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

/** Settings set by the practice, newest of each key. Defaults are added in core. */
export async function findSettings(sql: Db, practiceId: string): Promise<Partial<PracticeSettings>> {
  const rows = await sql<{ key: string; value: unknown }[]>`
    select distinct on (key) key, value from practice_setting where practice_id = ${practiceId} order by key, sequence desc`;
  return Object.fromEntries(rows.map((row) => [row.key, row.value]));
}

export async function insertSetting(
  sql: Db,
  s: { id: string; practiceId: string; key: SettingKey; value: SettingValue; at: string; by: string | null },
): Promise<void> {
  await sql`
    insert into practice_setting (id, practice_id, key, value, set_at, set_by)
    values (${s.id}, ${s.practiceId}, ${s.key}, ${sql.json(s.value)}, ${s.at}, ${s.by})`;
}

export interface SettingChange {
  readonly id: string;
  readonly key: string;
  readonly value: SettingValue;
  readonly setAt: string;
  readonly setByName: string | null;
}

/** Everything a practice ever set, the newest first. */
export async function listSettingChanges(sql: Db, practiceId: string): Promise<SettingChange[]> {
  return sql<SettingChange[]>`
    select s.id, s.key, s.value, s.set_at, p.display_name as set_by_name from practice_setting s left join person p on p.id = s.set_by
    where s.practice_id = ${practiceId} order by s.sequence desc limit 2000`;
}

/** One change of settings at a time: the second of two sees the first. */
export async function holdPractice(sql: Db, practiceId: string): Promise<void> {
  await sql`select id from practice where id = ${practiceId} for update`;
}

/** The next number of a kind, without gaps within a transaction. */
export async function nextNumber(sql: Db, practiceId: string, kind: 'wearer' | 'prescription' | 'order'): Promise<number> {
  const [row] = await sql<{ number: number }[]>`
    update practice_counter set next_value = next_value + 1
    where practice_id = ${practiceId} and kind = ${kind} returning next_value - 1 as number`;
  if (!row) throw new Error(`No ${kind} counter for the practice`);
  return row.number;
}

export async function insertAudit(
  sql: Db,
  entry: {
    id: string;
    practiceId: string;
    at: string;
    personId: string;
    action: string;
    subjectKind?: string | null;
    subjectId?: string | null;
    detail?: Record<string, string | number | boolean | null>;
  },
): Promise<void> {
  await sql`
    insert into audit_log (id, practice_id, at, person_id, action, subject_kind, subject_id, detail)
    values (${entry.id}, ${entry.practiceId}, ${entry.at}, ${entry.personId}, ${entry.action},
      ${entry.subjectKind ?? null}, ${entry.subjectId ?? null}, ${sql.json(entry.detail ?? {})})`;
}

export async function upsertDevice(sql: Db, device: { id: string; practiceId: string; lights: 'up' | 'down'; at: string }): Promise<void> {
  await sql`
    insert into device (id, practice_id, lights, seen_at) values (${device.id}, ${device.practiceId}, ${device.lights}, ${device.at})
    on conflict (id) do update set lights = excluded.lights, seen_at = excluded.seen_at
    where device.practice_id = excluded.practice_id`;
}
