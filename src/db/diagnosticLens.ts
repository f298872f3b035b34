import 'server-only';
import type { SetLens } from '../core';
import type { Db } from './client';
import type { Moved } from './trialStock';

/**
 * Lenses of the practice's diagnostic sets with the last time each was on an eye and what was done since: all that decides whether it may
 * go on one. Lenses that left their set long ago are left out.
 */
export const listDiagnosticLenses = (sql: Db, practiceId: string, today: string) => sql<SetLens[]>`
  select d.id, d.lens_id, d.set_code, coalesce(n.name, f.name) as set_name, d.number, d.expires_on, l.family_version_id, l.sphere_d, l.cylinder_d,
    l.axis_deg, l.add_band, l.base_curve_mm, l.diameter_mm, coalesce(n.disinfect_with, f.disinfect_with) as disinfect_with,
    coalesce(n.disinfect_minutes, f.disinfect_minutes) as disinfect_minutes, e.ended_at,
    (select coalesce(jsonb_agg(jsonb_build_object('onAt', u.put_on_at, 'offAt', u.off_at)), '[]') from (
      select u.put_on_at, u.off_at from diagnostic_lens_use u
      where u.practice_id = d.practice_id and u.diagnostic_lens_id = d.id order by u.put_on_at desc limit 1) u) as uses,
    (select coalesce(jsonb_agg(jsonb_build_object('beganAt', s.began_at, 'endsAt', s.ends_at) order by s.sequence), '[]') from (
      select s.began_at, s.ends_at, s.sequence from diagnostic_disinfection s
      where s.practice_id = d.practice_id and s.diagnostic_lens_id = d.id order by s.sequence desc limit 3) s) as disinfections
  from diagnostic_lens d
  join lens l on l.id = d.lens_id join lens_family_version f on f.id = l.family_version_id
  left join diagnostic_lens_end e on e.diagnostic_lens_id = d.id
  left join lateral (
    select v.name, v.disinfect_with, v.disinfect_minutes from lens_family_version v
    where v.practice_id = d.practice_id and v.code = d.set_code and v.listed and (v.starts_on is null or v.starts_on <= ${today})
    order by v.starts_on desc nulls last, v.version desc limit 1) n on true
  where d.practice_id = ${practiceId} and (e.ended_at is null or e.ended_at > ${today}::date - 90)
  order by set_name, l.base_curve_mm, l.diameter_mm, d.number`;

/** Locks lenses of a set until the transaction ends, in one order for all. @returns ids that are lenses of this practice */
export async function lockDiagnosticLenses(sql: Db, practiceId: string, ids: readonly string[]): Promise<void> {
  // A lock on the practice's lens by its id: its row is never updated, so nobody needs the right to.
  for (const id of [...ids].sort()) await sql`select pg_advisory_xact_lock(hashtextextended(${`${practiceId} ${id}`}, 69))`;
}

export interface NewDiagnosticLens {
  readonly id: string;
  readonly lensId: string;
  readonly setCode: string;
  readonly number: string;
  readonly expiresOn: string;
}
/** Adds lenses to their sets. @returns numbers that the set has already: nothing was added then */
export async function insertDiagnosticLenses(sql: Db, practiceId: string, lenses: readonly NewDiagnosticLens[], { at, by }: Moved): Promise<readonly string[]> {
  const [first] = lenses;
  if (!first) return [];
  const had = await sql<{ readonly number: string }[]>`
    select number from diagnostic_lens where practice_id = ${practiceId} and set_code = ${first.setCode} and number = any (${lenses.map((l) => l.number)})`;
  if (had.length === 0) await sql`insert into diagnostic_lens ${sql(lenses.map((l) => ({ ...l, practiceId, addedAt: at, addedBy: by })))}`;
  return had.map((h) => h.number);
}

export interface NewDisinfection {
  readonly id: string;
  readonly diagnosticLensId: string;
  readonly disinfectedWith: string;
  readonly endsAt: string;
}
export async function insertDisinfections(sql: Db, practiceId: string, done: readonly NewDisinfection[], { at, by }: Moved): Promise<void> {
  if (done.length > 0) await sql`insert into diagnostic_disinfection ${sql(done.map((d) => ({ ...d, practiceId, beganAt: at, begunBy: by })))}`;
}

/** Takes a lens out of its set for good; false where it is out already. */
export async function endDiagnosticLens(sql: Db, practiceId: string, end: { readonly id: string; readonly why: string }, { at, by }: Moved): Promise<boolean> {
  const { count } = await sql`
    insert into diagnostic_lens_end ${sql({ diagnosticLensId: end.id, practiceId, why: end.why, endedAt: at, endedBy: by })} on conflict do nothing`;
  return count === 1;
}

/** Something that happened to a lens of a set. */
export interface DiagnosticLensEvent {
  readonly what: 'added' | 'on' | 'disinfected' | 'ended';
  readonly at: string;
  readonly until: string | null;
  /** Whose eye, or who did it. */
  readonly name: string;
  readonly wearerId: string | null;
  readonly detail: string | null;
}
/** Everything that happened to a lens of a set, the newest first: which wearer had it on and when it was disinfected. */
export const listDiagnosticLensEvents = (sql: Db, practiceId: string, id: string) => sql<DiagnosticLensEvent[]>`
  select * from (
    select 'added' as what, d.added_at as at, null::timestamptz as until, p.display_name as name, null::uuid as wearer_id, null as detail
    from diagnostic_lens d join person p on p.id = d.added_by where d.practice_id = ${practiceId} and d.id = ${id}
    union all
    select 'on', u.put_on_at, u.off_at, i.name, u.wearer_id, u.eye
    from diagnostic_lens_use u join wearer_identity i on i.wearer_id = u.wearer_id where u.practice_id = ${practiceId} and u.diagnostic_lens_id = ${id}
    union all
    select 'disinfected', s.began_at, s.ends_at, p.display_name, null, s.disinfected_with
    from diagnostic_disinfection s join person p on p.id = s.begun_by where s.practice_id = ${practiceId} and s.diagnostic_lens_id = ${id}
    union all
    select 'ended', e.ended_at, null, p.display_name, null, e.why
    from diagnostic_lens_end e join person p on p.id = e.ended_by where e.practice_id = ${practiceId} and e.diagnostic_lens_id = ${id}) all_of
  order by at desc, what = 'added' limit 200`;
