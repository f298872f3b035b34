import 'server-only';
import type { Eye } from '../core';
import type { Db } from './client';

/** Newest powers of one eye of somebody, and its keratometry; nobody's name. */
export interface PowerOfEye {
  /** Tells wearers apart within the answer, and nothing else. */
  readonly wearer: number;
  readonly eye: Eye;
  readonly sphereD: number;
  readonly cylinderD: number;
  readonly axisDeg: number;
  readonly vertexMm: number;
  readonly flatMm: number | null;
  readonly steepMm: number | null;
}

/** The newest refraction of each eye of everybody who was refracted since a moment. */
export const listPowers = (sql: Db, practiceId: string, since: string) => sql<PowerOfEye[]>`
  with newest as (
    select distinct on (v.wearer_id, r.eye) v.wearer_id, r.eye, r.sphere_d, r.cylinder_d, r.axis_deg, r.vertex_mm
    from refraction r join visit v on v.practice_id = r.practice_id and v.id = r.visit_id
    where r.practice_id = ${practiceId} and r.observed_at >= ${since} and not r.voided
      and not exists (select 1 from refraction c where c.practice_id = r.practice_id and c.corrects_id = r.id)
    order by v.wearer_id, r.eye, r.observed_at desc),
  k as (
    select distinct on (v.wearer_id, f.eye, f.sign) v.wearer_id, f.eye, f.sign, f.number_value
    from eye_finding f join visit v on v.practice_id = f.practice_id and v.id = f.visit_id
    where f.practice_id = ${practiceId} and f.sign in ('kFlatMm', 'kSteepMm') and not f.voided
      and not exists (select 1 from eye_finding c where c.practice_id = f.practice_id and c.corrects_id = f.id)
    order by v.wearer_id, f.eye, f.sign, f.observed_at desc)
  select dense_rank() over (order by n.wearer_id)::int as wearer, n.eye, n.sphere_d, n.cylinder_d, n.axis_deg, n.vertex_mm,
    (select number_value from k where k.wearer_id = n.wearer_id and k.eye = n.eye and k.sign = 'kFlatMm') as flat_mm,
    (select number_value from k where k.wearer_id = n.wearer_id and k.eye = n.eye and k.sign = 'kSteepMm') as steep_mm
  from newest n order by wearer, n.eye desc`;
