import 'server-only';
import type { Eye, LensChoice } from '../core';
import type { Db } from './client';

/** Lenses of a visit that were taken up again, in that order. */
export async function listChoices(sql: Db, practiceId: string, visitId: string): Promise<LensChoice[]> {
  return sql<LensChoice[]>`
    select c.lens_on_eye_id, c.why, c.chosen_at, p.display_name as chosen_by_name
    from lens_choice c join person p on p.id = c.chosen_by
    where c.practice_id = ${practiceId} and c.visit_id = ${visitId} order by c.sequence`;
}

export interface NewChoice {
  readonly id: string;
  readonly practiceId: string;
  readonly visitId: string;
  readonly visitVersion: number;
  readonly lensOnEyeId: string;
  readonly why: string;
  readonly chosenAt: string;
  readonly chosenBy: string;
}
export async function insertChoice(sql: Db, choice: NewChoice): Promise<void> {
  await sql`insert into lens_choice ${sql({ ...choice })}`;
}

/** A lens that is settling somewhere in the practice, or has lately done so. */
export interface SettlingRow {
  readonly lensOnEyeId: string;
  readonly visitId: string;
  readonly wearerName: string;
  readonly eye: Eye;
  readonly familyName: string;
  readonly putOnAt: string;
  readonly settleMinutes: number;
}

/** Settle clocks of the practice's open visits that ran out after `since`, or still run. A lens brought in has none. */
export async function listSettling(sql: Db, practiceId: string, since: string): Promise<SettlingRow[]> {
  return sql<SettlingRow[]>`
    select e.root_id as lens_on_eye_id, e.visit_id, i.name as wearer_name, e.eye, f.name as family_name, e.put_on_at, f.settle_minutes
    from lens_on_eye e
    join visit v on v.practice_id = e.practice_id and v.id = e.visit_id and v.closed_at is null
    join wearer_identity i on i.wearer_id = v.wearer_id
    join lens l on l.id = e.lens_id
    join lens_family_version f on f.id = l.family_version_id
    where e.practice_id = ${practiceId} and e.source = 'trial' and not e.voided
      and e.put_on_at + make_interval(mins => f.settle_minutes) >= ${since}
      and not exists (select 1 from lens_on_eye n where n.corrects_id = e.id)
      and not exists (
        select 1 from lens_removal r where r.lens_on_eye_id = e.root_id
          and not exists (select 1 from lens_removal_withdrawn w where w.lens_on_eye_id = e.id))
    order by e.put_on_at, e.eye desc`;
}
