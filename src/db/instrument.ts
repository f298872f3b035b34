import 'server-only';
import type { InstrumentRow } from '../core';
import type { Db } from './client';

/** Instruments in use, by name. */
export function listInstruments(sql: Db, practiceId: string) {
  return sql<InstrumentRow[]>`
    select i.id, i.name, i.zero_deg as zero, i.grows, i.added_at, p.display_name as added_by_name
    from instrument i join person p on p.id = i.added_by
    where i.practice_id = ${practiceId} and not exists (select 1 from instrument_end e where e.instrument_id = i.id)
    order by i.name, i.added_at`;
}

export interface NewInstrument {
  readonly id: string;
  readonly practiceId: string;
  readonly name: string;
  readonly zeroDeg: number;
  readonly grows: 'left' | 'right';
  readonly readStraight: number;
  readonly readTurned: number;
  readonly addedAt: string;
  readonly addedBy: string;
}
export async function insertInstrument(sql: Db, instrument: NewInstrument): Promise<void> {
  await sql`insert into instrument ${sql({ ...instrument })}`;
}

/** @returns false when there is no such instrument, or it is ended already */
export async function insertInstrumentEnd(sql: Db, end: { practiceId: string; instrumentId: string; at: string; by: string }): Promise<boolean> {
  const rows = await sql`
    insert into instrument_end (instrument_id, practice_id, ended_at, ended_by)
    select id, practice_id, ${end.at}, ${end.by} from instrument where practice_id = ${end.practiceId} and id = ${end.instrumentId}
    on conflict do nothing returning instrument_id`;
  return rows.length === 1;
}
