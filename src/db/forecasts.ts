import 'server-only';
import type { LensAdd } from '../core';
import type { Db } from './client';

/** The lenses of a pair, as far as a change of it goes. */
export interface PairRow {
  readonly rightSphereD: number;
  readonly rightAdd: LensAdd | null;
  readonly rightCylinderD: number;
  readonly leftSphereD: number;
  readonly leftAdd: LensAdd | null;
  readonly leftCylinderD: number;
}
/** A kept forecast, the pair it was made from, and what was read first through another one. */
export interface ForecastRow {
  readonly change: string;
  readonly foretold: readonly string[];
  readonly before: PairRow;
  readonly after: PairRow;
  readonly read: readonly { readonly distanceCm: number; readonly acuity: number | null; readonly satisfaction: number }[];
}

const notCorrected = (sql: Db, table: string, alias: string) =>
  sql`not ${sql(alias)}.voided and not exists (select 1 from ${sql(table)} n where n.practice_id = ${sql(alias)}.practice_id and n.corrects_id = ${sql(alias)}.id)`;

/** The lens on an eye, in its last version. */
const pairOf = (sql: Db, right: string, left: string) => sql`
  (select jsonb_build_object('rightSphereD', r.sphere_d, 'rightAdd', r.add_band, 'rightCylinderD', r.cylinder_d,
      'leftSphereD', l.sphere_d, 'leftAdd', l.add_band, 'leftCylinderD', l.cylinder_d)
    from lens_on_eye re join lens r on r.id = re.lens_id, lens_on_eye le join lens l on l.id = le.lens_id
    where re.practice_id = c.practice_id and re.root_id = ${sql(right)} and ${notCorrected(sql, 'lens_on_eye', 're')}
      and le.practice_id = c.practice_id and le.root_id = ${sql(left)} and ${notCorrected(sql, 'lens_on_eye', 'le')} limit 1)`;

/**
 * Forecasts of a practice that something followed: of each, the first pair that was judged afterwards, before the wearer's next
 * change, with both eyes open.
 * @param since from when on
 */
export const listForecasts = (sql: Db, practiceId: string, since: string) => sql<ForecastRow[]>`
  with change as (
    select c.*, v.wearer_id, lead(c.recorded_at) over (partition by v.wearer_id order by c.recorded_at, c.visit_version) as until
    from pair_change c join visit v on v.practice_id = c.practice_id and v.id = c.visit_id
    where c.practice_id = ${practiceId} and c.recorded_at >= ${since} and ${notCorrected(sql, 'pair_change', 'c')}),
  followed as (
    select c.id, s.right_lens_on_eye_id, s.left_lens_on_eye_id,
      row_number() over (partition by c.id order by s.recorded_at, s.sequence) as place
    from change c join visit v on v.practice_id = c.practice_id and v.wearer_id = c.wearer_id
    join task_sight s on s.practice_id = c.practice_id and s.visit_id = v.id and s.covered is null and ${notCorrected(sql, 'task_sight', 's')}
      and s.recorded_at > c.recorded_at and s.recorded_at <= coalesce(c.until, 'infinity')
      and (s.right_lens_on_eye_id, s.left_lens_on_eye_id) <> (c.right_lens_on_eye_id, c.left_lens_on_eye_id))
  select c.change, c.foretold, ${pairOf(sql, 'c.right_lens_on_eye_id', 'c.left_lens_on_eye_id')} as before,
    ${pairOf(sql, 'f.right_lens_on_eye_id', 'f.left_lens_on_eye_id')} as after,
    (select jsonb_agg(jsonb_build_object('distanceCm', t.distance_cm, 'acuity', t.acuity_log_mar, 'satisfaction', t.satisfaction) order by t.sequence)
      from (select distinct on (s.task) s.* from task_sight s
        where s.practice_id = c.practice_id and s.right_lens_on_eye_id = f.right_lens_on_eye_id and s.left_lens_on_eye_id = f.left_lens_on_eye_id
          and s.covered is null and ${notCorrected(sql, 'task_sight', 's')} order by s.task, s.sequence desc) t) as read
  from change c join followed f on f.id = c.id and f.place = 1`;
