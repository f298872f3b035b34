import 'server-only';
import type { ConfirmedHow, Eye } from '../core';
import type { Db } from './client';

/** Withdraws a removal that was recorded by mistake. @returns false when there is none, or it is withdrawn already */
export async function withdrawRemoval(sql: Db, w: { practiceId: string; lensOnEyeId: string; at: string; by: string; reason: string }): Promise<boolean> {
  const rows = await sql`
    insert into lens_removal_withdrawn (lens_on_eye_id, practice_id, withdrawn_at, withdrawn_by, reason)
    select lens_on_eye_id, practice_id, ${w.at}, ${w.by}, ${w.reason} from lens_removal
    where practice_id = ${w.practiceId} and lens_on_eye_id = ${w.lensOnEyeId}
    on conflict do nothing returning lens_on_eye_id`;
  return rows.length === 1;
}

export interface OnEyeExtras {
  readonly lensOnEyeId: string;
  readonly how: ConfirmedHow | null;
  readonly takenOffAt: string | null;
  /** A removal that was recorded by mistake, and why it was withdrawn. */
  readonly withdrawnOffAt: string | null;
  readonly withdrawnReason: string | null;
}

/** Confirmation and removal of each lens on an eye in a visit. */
export function listOnEyeExtras(sql: Db, practiceId: string, visitIds: readonly string[]) {
  return sql<OnEyeExtras[]>`
    select e.id as lens_on_eye_id, c.how, case when w.lens_on_eye_id is null then r.taken_off_at end as taken_off_at,
      case when w.lens_on_eye_id is not null then r.taken_off_at end as withdrawn_off_at, w.reason as withdrawn_reason
    from lens_on_eye e
    left join lens_confirmation c on c.lens_on_eye_id = e.id
    left join lens_removal r on r.lens_on_eye_id = e.id
    left join lens_removal_withdrawn w on w.lens_on_eye_id = e.id
    where e.practice_id = ${practiceId} and e.visit_id = any (${[...visitIds]}) and e.id = e.root_id`;
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
