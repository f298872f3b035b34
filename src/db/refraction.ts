import 'server-only';
import type postgres from 'postgres';
import type { RefractionFact } from '../core';
import type { Db } from './client';

/** The newest refraction of each eye in some visits, as it stands after corrections. */
export const listNewestRefractions = (sql: Db, practiceId: string, visits: Visits) => newestOf(sql, practiceId, visits, sql``);

/** The newest refraction of each eye that found an addition, among those begun in some visits. */
export const listNewestAdds = (sql: Db, practiceId: string, visits: Visits) => newestOf(sql, practiceId, visits, sql`and c.add_d is not null`);

type Visits = postgres.PendingQuery<{ readonly id: string }[]>;
function newestOf(sql: Db, practiceId: string, visits: Visits, more: ReturnType<Db>) {
  return sql<RefractionFact[]>`
    select distinct on (c.eye) c.*, p.display_name as recorded_by_name
    from refraction r
    join refraction c on c.practice_id = r.practice_id and c.root_id = r.id and not c.voided
      and not exists (select 1 from refraction n where n.practice_id = c.practice_id and n.corrects_id = c.id)
    join person p on p.id = c.recorded_by
    where r.practice_id = ${practiceId} and r.corrects_id is null and r.visit_id in (${visits}) ${more}
    order by c.eye, r.recorded_at desc, r.visit_version desc`;
}
