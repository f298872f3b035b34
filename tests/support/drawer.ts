import type { Sql } from '../../src/db/client';

/**
 * So many trial lenses of each lot in the drawer, as if they had just been counted.
 * @param code only of this family, and of this power
 */
export async function fillDrawer(
  owner: Sql,
  count: number,
  of: { readonly code?: string; readonly power?: readonly [number, number, number] } = {},
): Promise<void> {
  const [sphere, cylinder, axis] = of.power ?? [null, null, null];
  await owner`
    insert into trial_movement (practice_id, trial_stock_id, kind, change, moved_at, moved_by)
    select s.practice_id, s.id, 'counted', ${count} - s.count, now(), (select person_id from membership m where m.practice_id = s.practice_id limit 1)
    from trial_stock s join lens l on l.id = s.lens_id join lens_family_version f on f.id = l.family_version_id
    where s.count <> ${count} and (${of.code ?? null}::text is null or f.code = ${of.code ?? null})
      and (${sphere}::numeric is null or (l.sphere_d, l.cylinder_d, l.axis_deg) = (${sphere}, ${cylinder}, ${axis}))`;
}
