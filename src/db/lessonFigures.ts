import 'server-only';
import type { Miss, Move, Technique } from '../core';
import type { Db } from './client';

/** Attempts that stand, since a moment. */
const attempts = (sql: Db, practiceId: string, since: string) => sql`
  select a.lesson_id, a.move, a.worked, a.unaided, a.miss, a.technique, a.observed_at from lesson_attempt a
  where a.practice_id = ${practiceId} and a.observed_at >= ${since} and not a.voided
    and not exists (select 1 from lesson_attempt n where n.practice_id = a.practice_id and n.corrects_id = a.id)`;

export interface MinutesFigure {
  readonly lessons: number;
  /** Minutes from the first attempt to the last, of all days up to the sign-off: a quarter, a half, three quarters took no longer. */
  readonly quarter: number | null;
  readonly half: number | null;
  readonly threeQuarters: number | null;
  /** Signed off in the first lesson. */
  readonly firstDay: number;
}
/** How long new wearers handle lenses until they are signed off. A sign-off counts with its wearer's lessons since the one before. */
export async function minutesToSignOff(sql: Db, practiceId: string, since: string): Promise<MinutesFigure> {
  const [row] = await sql<MinutesFigure[]>`
    with signed as (
      select s.lesson_id, s.wearer_id, s.signed_at,
        lag(s.signed_at) over (partition by s.wearer_id order by s.signed_at) as before
      from lesson_sign_off s where s.practice_id = ${practiceId}),
    days as (
      select s.lesson_id as signed_lesson, a.lesson_id, extract(epoch from max(a.observed_at) - min(a.observed_at)) / 60 as minutes
      from signed s
      join lesson l on l.practice_id = ${practiceId} and l.wearer_id = s.wearer_id and l.started_at <= s.signed_at and (s.before is null or l.started_at > s.before)
      join (${attempts(sql, practiceId, since)}) a on a.lesson_id = l.id
      where s.signed_at >= ${since} group by s.lesson_id, a.lesson_id),
    each as (select signed_lesson, sum(minutes) as minutes, count(*) as lessons from days group by signed_lesson)
    select count(*)::int as lessons, (count(*) filter (where lessons = 1))::int as first_day,
      round((percentile_cont(0.25) within group (order by minutes))::numeric, 0)::float8 as quarter,
      round((percentile_cont(0.5) within group (order by minutes))::numeric, 0)::float8 as half,
      round((percentile_cont(0.75) within group (order by minutes))::numeric, 0)::float8 as three_quarters
    from each`;
  return row ?? { lessons: 0, quarter: null, half: null, threeQuarters: null, firstDay: 0 };
}

/** Attempts that failed, by why; the most frequent first. */
export const countMisses = (sql: Db, practiceId: string, since: string) => sql<{ readonly miss: Miss; readonly move: Move; readonly count: number }[]>`
  select miss, move, count(*)::int as count from (${attempts(sql, practiceId, since)}) a
  where not worked and miss is not null group by miss, move order by count desc, miss, move`;

/** How often each technique worked without help. */
export const countTechniques = (sql: Db, practiceId: string, since: string) => sql<
  { readonly technique: Technique; readonly attempts: number; readonly worked: number }[]
>`
  select technique, count(*)::int as attempts, (count(*) filter (where worked and unaided))::int as worked from (${attempts(sql, practiceId, since)}) a
  where technique is not null group by technique order by attempts desc`;
