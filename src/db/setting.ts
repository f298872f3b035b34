import 'server-only';
import type { SettingKey, SettingValue } from '../core';
import type { Db } from './client';

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
