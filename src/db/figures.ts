import 'server-only';
import { FEWEST_READINGS, type Modality, type PracticeTurn } from '../core';
import type { Db } from './client';

/** Of each lens on an eye the first whole series of readings of its mark, once it had settled, as one figure. */
const seriesOf = (sql: Db, practiceId: string) => sql`
  select distinct on (v.wearer_id, e.eye, f.code) f.code, avg(r.rotation_left_deg) as mean
  from rotation_reading r
  join lens_on_eye e on e.practice_id = r.practice_id and e.root_id = r.lens_on_eye_id and not e.voided
    and not exists (select 1 from lens_on_eye n where n.practice_id = e.practice_id and n.corrects_id = e.id)
  join visit v on v.practice_id = e.practice_id and v.id = e.visit_id
  join lens l on l.practice_id = e.practice_id and l.id = e.lens_id join lens_family_version f on f.practice_id = l.practice_id and f.id = l.family_version_id
  where r.practice_id = ${practiceId} and not r.voided and not r.provisional and r.how <> 'look' and l.cylinder_d <> 0
    and not exists (select 1 from rotation_reading n where n.practice_id = r.practice_id and n.corrects_id = r.id)
  group by v.wearer_id, e.eye, f.code, r.lens_on_eye_id, r.series_no having count(*) >= ${FEWEST_READINGS}
  order by v.wearer_id, e.eye, f.code, min(r.observed_at)`;

/** Reckons anew how each toric family's marks sit on the practice's eyes: each eye counts once, by its first series. */
export async function reckonTurns(sql: Db, practiceId: string, today: string): Promise<void> {
  await sql`
    with now as (select code, avg(mean)::numeric(5, 2) as mean_deg, coalesce(stddev_samp(mean), 0)::numeric(5, 2) as sd_deg, count(*)::int as eyes
      from (${seriesOf(sql, practiceId)}) s group by code),
    gone as (delete from family_turn t where t.practice_id = ${practiceId} and not exists (select 1 from now n where n.code = t.code))
    insert into family_turn (practice_id, code, mean_deg, sd_deg, eyes, reckoned_on)
    select ${practiceId}, code, mean_deg, sd_deg, eyes, ${today} from now
    on conflict (practice_id, code) do update
      set mean_deg = excluded.mean_deg, sd_deg = excluded.sd_deg, eyes = excluded.eyes, reckoned_on = excluded.reckoned_on`;
}

export interface TurnFigure extends PracticeTurn {
  readonly code: string;
  readonly name: string;
  readonly stabilisation: 'prismBallast' | 'thinZones' | 'fourPoint' | null;
  readonly rotationMean: number | null;
  readonly rotationSd: number | null;
}
export const listTurns = (sql: Db, practiceId: string) => sql<TurnFigure[]>`
  select t.code, f.name, f.stabilisation, f.rotation_mean, f.rotation_sd, t.mean_deg as mean, t.sd_deg as sd, t.eyes
  from family_turn t join lateral (select name, stabilisation, rotation_mean, rotation_sd from lens_family_version v
    where v.practice_id = t.practice_id and v.code = t.code order by v.version desc limit 1) f on true
  where t.practice_id = ${practiceId} order by t.eyes desc, f.name`;

/** Orders that a supplier promised since a moment, and how many of them came by their day. */
export const listPunctuality = (sql: Db, practiceId: string, since: string, timeZone: string) => sql<
  { readonly supplier: string | null; readonly orders: number; readonly inTime: number; readonly medianDays: number }[]
>`
  select s.name as supplier, count(*)::int as orders, (count(*) filter (where o.came_on <= o.due_on))::int as in_time,
    percentile_disc(0.5) within group (order by o.came_on - o.placed_on)::int as median_days
  from (
    select o.supplier_id, (o.placed_at at time zone ${timeZone})::date as placed_on, d.due_on, (min(r.received_at) at time zone ${timeZone})::date as came_on
    from lens_order o join order_line l on l.practice_id = o.practice_id and l.order_id = o.id
    join order_receipt r on r.practice_id = l.practice_id and r.order_line_id = l.id
    join order_event d on d.practice_id = o.practice_id and d.order_id = o.id and d.state in ('acknowledged', 'backordered') and d.due_on is not null
    where o.practice_id = ${practiceId} and o.placed_at >= ${since} group by o.id, o.supplier_id, o.placed_at, d.due_on) o
  left join supplier s on s.id = o.supplier_id group by s.name order by orders desc`;

/** How long lenses were really worn beside their label, by modality. */
export const listStretching = (sql: Db, practiceId: string) => sql<
  { readonly modality: Modality; readonly eyes: number; readonly slow: number; readonly fast: number; readonly middle: number }[]
>`
  select modality, count(*)::int as eyes, (count(*) filter (where pace > 1.15))::int as slow, (count(*) filter (where pace < 0.85))::int as fast,
    percentile_cont(0.5) within group (order by pace)::float8 as middle
  from eye_runway where practice_id = ${practiceId} and pace is not null group by modality order by eyes desc`;

/** Prescriptions signed since a moment, and those of them that replaced another within ninety days with another lens. */
export async function countRemakes(
  sql: Db,
  practiceId: string,
  since: string,
): Promise<{ readonly signed: number; readonly remade: number; readonly claimed: number }> {
  const [row] = await sql<{ signed: number; remade: number; claimed: number }[]>`
    select count(*)::int as signed,
      (count(*) filter (where exists (
        select 1 from prescription b where b.practice_id = p.practice_id and b.id = p.supersedes_id and p.issued_on - b.issued_on <= 90
          and exists (select 1 from prescription_eye n join prescription_eye o on o.practice_id = n.practice_id and o.prescription_id = b.id and o.eye = n.eye
            where n.practice_id = p.practice_id and n.prescription_id = p.id and n.lens_id is distinct from o.lens_id))))::int as remade,
      (select count(*)::int from order_claim c where c.practice_id = ${practiceId} and c.opened_at >= ${since}) as claimed
    from prescription p where p.practice_id = ${practiceId} and p.issued_at >= ${since}`;
  return row ?? { signed: 0, remade: 0, claimed: 0 };
}

/** Of each family the eyes on which it was the first lens tried at a visit that ended with a prescription, and how often that very lens was prescribed. */
export const listFirstLens = (sql: Db, practiceId: string, since: string) => sql<
  { readonly code: string; readonly name: string; readonly eyes: number; readonly same: number; readonly family: number }[]
>`
  select f.code, min(f.name) as name, count(*)::int as eyes, (count(*) filter (where t.lens_id = t.prescribed_lens))::int as same,
    (count(*) filter (where f.code = t.prescribed_code))::int as family
  from (
    select distinct on (e.visit_id, e.eye) e.lens_id, p.lens_id as prescribed_lens, g.code as prescribed_code
    from prescription r join prescription_eye p on p.practice_id = r.practice_id and p.prescription_id = r.id and p.lens_id is not null
    join lens_on_eye e on e.practice_id = r.practice_id and e.visit_id = r.visit_id and e.eye = p.eye and e.source = 'trial' and not e.voided
      and not exists (select 1 from lens_on_eye n where n.practice_id = e.practice_id and n.corrects_id = e.id)
    join lens pl on pl.id = p.lens_id join lens_family_version g on g.id = pl.family_version_id
    where r.practice_id = ${practiceId} and r.issued_at >= ${since}
    order by e.visit_id, e.eye, e.put_on_at) t
  join lens l on l.id = t.lens_id join lens_family_version f on f.id = l.family_version_id
  group by f.code order by eyes desc, name`;
