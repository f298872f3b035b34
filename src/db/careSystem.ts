import 'server-only';
import type { KeptIn } from '../core';
import type { Db } from './client';

/** What a wearer's lenses are kept in, as said at aftercare or prescribed, the newest of both; null: nothing is known. */
export async function findKeptIn(sql: Db, practiceId: string, wearerId: string): Promise<KeptIn | null> {
  const [row] = await sql<{ what: string }[]>`
    select what from (
      select c.product_id::text as what, c.recorded_at from care_system c join visit v on v.practice_id = c.practice_id and v.id = c.visit_id
      where c.practice_id = ${practiceId} and v.wearer_id = ${wearerId} and not c.voided
        and not exists (select 1 from care_system n where n.practice_id = c.practice_id and n.corrects_id = c.id)
      union all
      select a.said[1], a.recorded_at from aftercare_answer a join visit v on v.practice_id = a.practice_id and v.id = a.visit_id
      where a.practice_id = ${practiceId} and v.wearer_id = ${wearerId} and a.question = 'solutionUsed' and not a.voided
        and not exists (select 1 from aftercare_answer n where n.practice_id = a.practice_id and n.corrects_id = a.id)) known
    order by recorded_at desc limit 1`;
  return row?.what ?? null;
}
