import 'server-only';
import type { Db } from './client';

export async function upsertDevice(sql: Db, device: { id: string; practiceId: string; lights: 'up' | 'down'; at: string }): Promise<void> {
  await sql`
    insert into device (id, practice_id, lights, seen_at) values (${device.id}, ${device.practiceId}, ${device.lights}, ${device.at})
    on conflict (id) do update set lights = excluded.lights, seen_at = excluded.seen_at
    where device.practice_id = excluded.practice_id`;
}
