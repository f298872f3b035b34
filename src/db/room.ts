import 'server-only';
import type { Db } from './client';

export async function insertRoom(sql: Db, room: { id: string; practiceId: string; name: string; sortOrder: number }): Promise<void> {
  await sql`insert into room ${sql(room)}`;
}
