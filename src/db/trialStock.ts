import 'server-only';
import type { Db } from './client';
import type { DrawerCount, LensSpec } from '../core';

export interface TrialStockRow extends LensSpec {
  readonly id: string;
  readonly lensId: string;
  readonly familyCode: string;
  readonly lot: string;
  readonly expiresOn: string;
  readonly count: number;
}

export function listTrialStock(sql: Db, practiceId: string) {
  return sql<TrialStockRow[]>`
    select s.id, s.lens_id, s.lot, s.expires_on, s.count, l.family_version_id, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band,
      l.base_curve_mm, l.diameter_mm, f.code as family_code
    from trial_stock s join lens l on l.id = s.lens_id join lens_family_version f on f.id = l.family_version_id
    where s.practice_id = ${practiceId} order by s.expires_on`;
}

/** Trial lenses that may still be used, counted by family, power, addition and curve. */
export function listDrawer(sql: Db, practiceId: string, today: string) {
  return sql<DrawerCount[]>`
    select f.code as family_code, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band, l.base_curve_mm, l.diameter_mm, sum(s.count) as count
    from trial_stock s join lens l on l.id = s.lens_id join lens_family_version f on f.id = l.family_version_id
    where s.practice_id = ${practiceId} and s.count > 0 and s.expires_on >= ${today}
    group by 1, 2, 3, 4, 5, 6, 7 order by 1, 2, 3, 4, 5, 6, 7`;
}

/** A lens taken from the drawer. */
export interface TakenTrial {
  readonly id: string;
  readonly lensId: string;
  readonly lot: string;
  readonly expiresOn: string;
}

/**
 * Takes lenses from the drawer, one for each that is asked, soonest to expire first, never an expired one. A lens bought
 * under an earlier version of its family is the same lens.
 * @param lensIds lenses asked for; one that is asked twice is taken twice
 * @returns what was taken for each, in their order; null where there is none left
 */
export async function takeTrials(sql: Db, practiceId: string, lensIds: readonly string[], today: string): Promise<readonly (TakenTrial | null)[]> {
  const rows = await sql<(TakenTrial & { readonly asked: string; readonly taken: number })[]>`
    with wanted as (select id, count(*) as n from unnest(${[...lensIds]}::uuid[]) as id group by id),
    candidates as (
      select s.id, s.lens_id, s.lot, s.expires_on, s.count, w.id as asked, w.n
      from wanted w
      join lens asked on asked.practice_id = ${practiceId} and asked.id = w.id
      join lens_family_version asked_family on asked_family.id = asked.family_version_id
      join trial_stock s on s.practice_id = ${practiceId} and s.count > 0 and s.expires_on >= ${today}
      join lens had on had.id = s.lens_id join lens_family_version had_family on had_family.id = had.family_version_id
      where had_family.code = asked_family.code
        and (had.sphere_d, had.cylinder_d, had.axis_deg) = (asked.sphere_d, asked.cylinder_d, asked.axis_deg)
        and had.add_band is not distinct from asked.add_band
        and had.base_curve_mm is not distinct from asked.base_curve_mm and had.diameter_mm is not distinct from asked.diameter_mm
      order by s.expires_on, s.id for update of s),
    shares as (
      select *, least(count, n - coalesce(sum(count) over (partition by asked order by expires_on, id rows between unbounded preceding and 1 preceding), 0)) as taken
      from candidates)
    update trial_stock t set count = t.count - h.taken from shares h where t.id = h.id and h.taken > 0
    returning t.id, t.lens_id, t.lot, t.expires_on, h.asked, h.taken`;
  const left = rows.flatMap(({ asked, taken, ...trial }) => Array.from({ length: taken }, () => ({ asked, trial }))).sort(soonestFirst);
  return lensIds.map((lensId) => {
    const at = left.findIndex((l) => l.asked === lensId);
    return at < 0 ? null : (left.splice(at, 1)[0]?.trial ?? null);
  });
}
const soonestFirst = (a: { readonly trial: TakenTrial }, b: { readonly trial: TakenTrial }): number =>
  a.trial.expiresOn.localeCompare(b.trial.expiresOn) || a.trial.id.localeCompare(b.trial.id);

export async function returnTrial(sql: Db, practiceId: string, trialStockId: string): Promise<void> {
  await sql`update trial_stock set count = count + 1 where practice_id = ${practiceId} and id = ${trialStockId}`;
}

export async function insertTrialStock(
  sql: Db,
  s: { id: string; practiceId: string; lensId: string; lot: string; expiresOn: string; count: number },
): Promise<void> {
  await sql`insert into trial_stock ${sql(s)} on conflict do nothing`;
}
