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

/**
 * Takes one lens from the drawer, soonest to expire first, never an expired one. A lens bought under an earlier
 * version of its family is the same lens. Null when there is none.
 */
export async function takeTrial(
  sql: Db,
  practiceId: string,
  lensId: string,
  today: string,
): Promise<{ id: string; lensId: string; lot: string; expiresOn: string } | null> {
  const [row] = await sql<{ id: string; lensId: string; lot: string; expiresOn: string }[]>`
    update trial_stock set count = count - 1
    where id = (
      select s.id from trial_stock s
      join lens had on had.id = s.lens_id join lens_family_version had_family on had_family.id = had.family_version_id
      join lens asked on asked.id = ${lensId} join lens_family_version asked_family on asked_family.id = asked.family_version_id
      where s.practice_id = ${practiceId} and asked.practice_id = ${practiceId} and s.count > 0 and s.expires_on >= ${today}
        and had_family.code = asked_family.code
        and (had.sphere_d, had.cylinder_d, had.axis_deg) = (asked.sphere_d, asked.cylinder_d, asked.axis_deg)
        and had.add_band is not distinct from asked.add_band
        and had.base_curve_mm is not distinct from asked.base_curve_mm and had.diameter_mm is not distinct from asked.diameter_mm
      order by s.expires_on limit 1 for update of s)
    returning id, lens_id, lot, expires_on`;
  return row ?? null;
}

export async function returnTrial(sql: Db, practiceId: string, trialStockId: string): Promise<void> {
  await sql`update trial_stock set count = count + 1 where practice_id = ${practiceId} and id = ${trialStockId}`;
}

export async function insertTrialStock(
  sql: Db,
  s: { id: string; practiceId: string; lensId: string; lot: string; expiresOn: string; count: number },
): Promise<void> {
  await sql`insert into trial_stock ${sql(s)} on conflict do nothing`;
}
