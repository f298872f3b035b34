import 'server-only';
import type { LensSpec, LensRow } from '../core';
import { must } from '../lib/assert';
import type { Db } from './client';

/** Are these the same lens? */
const sameLens = (sql: Db) => sql`
  l.practice_id = a.practice_id and l.family_version_id = a.family_version_id and l.sphere_d = a.sphere_d and l.cylinder_d = a.cylinder_d
  and l.axis_deg = a.axis_deg and l.add_band is not distinct from a.add_band and l.base_curve_mm is not distinct from a.base_curve_mm
  and l.diameter_mm is not distinct from a.diameter_mm`;

/** The rows of exactly these lenses, made when they are met for the first time. @returns their ids, in the order of the lenses */
export async function ensureLenses(sql: Db, practiceId: string, lenses: readonly LensSpec[], newId: () => string): Promise<readonly string[]> {
  const distinct = [...new Set(lenses.map((l) => JSON.stringify(l)))];
  const asked = distinct.map((text) => {
    const l = JSON.parse(text) as LensSpec;
    return {
      id: newId(),
      practice_id: practiceId,
      family_version_id: l.familyVersionId,
      sphere_d: l.sphereD,
      cylinder_d: l.cylinderD,
      axis_deg: l.axisDeg,
      add_band: l.addBand,
      base_curve_mm: l.baseCurveMm,
      diameter_mm: l.diameterMm,
    };
  });
  const find = () => sql<{ readonly place: number; readonly id: string | null }[]>`
    with a as (select x.*, n.place from jsonb_array_elements(${sql.json(asked)}) with ordinality n (lens, place), jsonb_populate_record(null::lens, n.lens) x),
    made as (
      insert into lens (id, practice_id, family_version_id, sphere_d, cylinder_d, axis_deg, add_band, base_curve_mm, diameter_mm)
      select a.id, a.practice_id, a.family_version_id, a.sphere_d, a.cylinder_d, a.axis_deg, a.add_band, a.base_curve_mm, a.diameter_mm from a
      where not exists (select 1 from lens l where ${sameLens(sql)})
      on conflict do nothing returning *)
    select a.place::int as place, coalesce((select l.id from lens l where ${sameLens(sql)}), (select l.id from made l where ${sameLens(sql)})) as id
    from a order by a.place`;
  let found = await find();
  // Somebody else met the lens at the same moment: now it is there.
  if (found.some((f) => f.id === null)) found = await find();
  return lenses.map((lens) => must(found[distinct.indexOf(JSON.stringify(lens))]?.id ?? undefined, 'lens found or made'));
}

export function listLenses(sql: Db, practiceId: string, ids: readonly string[]) {
  return sql<LensRow[]>`
    select l.id, l.family_version_id, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band, l.base_curve_mm, l.diameter_mm,
      f.code as family_code, f.name as family_name, f.maker, f.geometry, f.modality, f.mark_layout, f.settle_minutes, f.irregular, f.sight_minutes, f.mark_spacing, f.listed, f.myopia_hours, f.myopia_days
    from lens l join lens_family_version f on f.id = l.family_version_id
    where l.practice_id = ${practiceId} and l.id = any (${[...ids]})`;
}
