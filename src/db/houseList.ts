import 'server-only';
import type { Geometry, Modality } from '../core';
import type { Db } from './client';

export interface HouseListRow {
  readonly id: string;
  readonly modality: Modality;
  readonly geometry: Geometry;
  /** Up to three family codes, tried in this order. */
  readonly codes: readonly string[];
  readonly recordedAt: string;
  readonly recordedByName: string;
}

/** The newest list of every cell. */
export function listHouseList(sql: Db, practiceId: string) {
  return sql<HouseListRow[]>`
    select distinct on (h.modality, h.geometry) h.id, h.modality, h.geometry, h.codes, h.recorded_at, p.display_name as recorded_by_name
    from house_list h join person p on p.id = h.recorded_by
    where h.practice_id = ${practiceId} order by h.modality, h.geometry, h.sequence desc`;
}

export async function insertHouseList(
  sql: Db,
  h: { id: string; practiceId: string; modality: Modality; geometry: Geometry; codes: readonly string[]; at: string; by: string },
): Promise<void> {
  await sql`
    insert into house_list (id, practice_id, modality, geometry, codes, recorded_at, recorded_by)
    values (${h.id}, ${h.practiceId}, ${h.modality}, ${h.geometry}, ${sql.array([...h.codes])}::text[], ${h.at}, ${h.by})`;
}
