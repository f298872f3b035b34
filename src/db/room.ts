import 'server-only';
import type { Db } from './client';

export interface RoomRow {
  readonly id: string;
  readonly name: string;
  readonly sortOrder: number;
  readonly endedAt: string | null;
  readonly version: number;
}

/** @returns false when a room in use has this name */
export async function insertRoom(sql: Db, room: { id: string; practiceId: string; name: string; sortOrder: number }): Promise<boolean> {
  const rows = await sql`insert into room ${sql(room)} on conflict (practice_id, name) do nothing returning id`;
  return rows.length === 1;
}

/** Rooms in the order of the practice; ended ones last. */
export function listRooms(sql: Db, practiceId: string) {
  return sql<RoomRow[]>`
    select id, name, sort_order, ended_at, version from room where practice_id = ${practiceId} order by ended_at is not null, sort_order, name`;
}

/** @returns false when somebody else changed the room first, or its name is another room's */
export async function updateRoom(
  sql: Db,
  practiceId: string,
  room: { readonly id: string; readonly version: number; readonly name: string; readonly sortOrder: number; readonly endedAt: string | null },
): Promise<'done' | 'changed' | 'taken'> {
  const [taken] = await sql`select id from room where practice_id = ${practiceId} and name = ${room.name} and id <> ${room.id}`;
  if (taken) return 'taken';
  const rows = await sql`
    update room set name = ${room.name}, sort_order = ${room.sortOrder}, ended_at = ${room.endedAt}, version = version + 1
    where practice_id = ${practiceId} and id = ${room.id} and version = ${room.version} returning id`;
  return rows.length === 1 ? 'done' : 'changed';
}
