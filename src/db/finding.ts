import 'server-only';
import type { Eye, RecordedFinding, VisitRow } from '../core';
import type { Db } from './client';
import { earlierVisits } from './visit';

/** What holds of each finding of the visits before one: a correction stands for what it corrects. */
const held = (sql: Db, visit: VisitRow) => sql`
  select r.visit_id as seen_in, r.recorded_at as begun_at, r.visit_version as begun_version, c.*
  from eye_finding r
  join eye_finding c on c.practice_id = r.practice_id and c.root_id = r.id and not c.voided
    and not exists (select 1 from eye_finding n where n.practice_id = c.practice_id and n.corrects_id = c.id)
  where r.practice_id = ${visit.practiceId} and r.corrects_id is null and r.visit_id in (${earlierVisits(sql, visit)})`;

/** The newest finding of each sign and eye before a visit. */
export function listFindingsBefore(sql: Db, visit: VisitRow) {
  return sql<RecordedFinding[]>`
    select distinct on (f.eye, f.sign) f.id, f.root_id, f.corrects_id, f.voided, f.eye, f.visit_id, f.observed_at, f.recorded_at,
      f.recorded_by, p.display_name as recorded_by_name, f.reason, f.sign, f.number_value, f.word_value, f.copied_from_id
    from (${held(sql, visit)}) f join person p on p.id = f.recorded_by
    order by f.eye, f.sign, f.begun_at desc, f.begun_version desc`;
}

/** How a graded sign of an eye went at the visits before one. */
export interface GradedBefore {
  readonly eye: Eye;
  readonly sign: string;
  /** The lowest of any visit. */
  readonly lowest: number;
  /** The highest since a year before the visit; null where nothing was measured since. */
  readonly highestOfYear: number | null;
  /** The last grade of each visit, newest first, and when it was seen. */
  readonly values: readonly number[];
  readonly seenAt: readonly string[];
}

/** A yearly visit is seldom on the day: two months more, days. */
const A_YEAR = 425;

/** Grades and figures of the visits before one: the lowest of all, and the newest points of the trend; what was only repeated is none. */
export function listGradedBefore(sql: Db, visit: VisitRow, points: number) {
  return sql<GradedBefore[]>`
    select v.eye, v.sign, min(v.number_value) as lowest,
      max(v.number_value) filter (where v.observed_at >= ${visit.openedAt}::timestamptz - make_interval(days => ${A_YEAR}::int)) as highest_of_year,
      (array_agg(v.number_value order by v.observed_at desc))[1:${points}::int] as values,
      (array_agg(v.observed_at order by v.observed_at desc))[1:${points}::int] as seen_at
    from (
      select distinct on (f.seen_in, f.eye, f.sign) f.eye, f.sign, f.number_value, f.observed_at
      from (${held(sql, visit)}) f where f.copied_from_id is null order by f.seen_in, f.eye, f.sign, f.begun_at desc, f.begun_version desc) v
    where v.number_value is not null group by v.eye, v.sign`;
}
