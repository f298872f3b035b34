import 'server-only';
import type { CarePair } from '../core';
import type { Db } from './client';

export interface CarePairRow extends CarePair {
  readonly recordedAt: string;
  readonly recordedByName: string;
}

/** What holds of every pair: its newest row; pairs that turned out to be none are left out. */
export function listCarePairs(sql: Db, practiceId: string) {
  return sql<CarePairRow[]>`
    select product_id, material, effect, source, recorded_at, recorded_by_name from (
      select distinct on (c.product_id, lower(trim(c.material))) c.product_id, c.material, c.effect, c.source, c.recorded_at,
        p.display_name as recorded_by_name
      from care_pair c join person p on p.id = c.recorded_by
      where c.practice_id = ${practiceId} order by c.product_id, lower(trim(c.material)), c.sequence desc) newest
    where effect <> 'none' order by product_id, material`;
}

export async function insertCarePair(
  sql: Db,
  pair: CarePair & { readonly id: string; readonly practiceId: string; readonly recordedAt: string; readonly recordedBy: string },
): Promise<void> {
  await sql`insert into care_pair ${sql(pair)}`;
}
