import 'server-only';
import type { BroughtAlong } from '../core';
import type { Db } from './client';

export interface NewBroughtAlong extends Omit<BroughtAlong, 'recordedAt'> {
  readonly id: string;
  readonly wearerId: string;
}

export async function insertBroughtAlong(sql: Db, practiceId: string, rows: readonly NewBroughtAlong[], at: string, by: string): Promise<void> {
  if (rows.length === 0) return;
  await sql`insert into brought_along ${sql(rows.map((row) => ({ ...row, practiceId, recordedAt: at, recordedBy: by })))}`;
}

/** What a wearer is said to have worn before coming here, the newest of each eye. */
export function listBroughtAlong(sql: Db, practiceId: string, wearerId: string) {
  return sql<BroughtAlong[]>`
    select distinct on (eye) eye, lens_id, as_of, recorded_at from brought_along
    where practice_id = ${practiceId} and wearer_id = ${wearerId} order by eye, sequence desc`;
}
