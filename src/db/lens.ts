import 'server-only';
import type { LensSpec, LensRow } from '../core';
import type { Db } from './client';

/** The row of exactly this lens, made when it is met for the first time. */
export async function ensureLens(sql: Db, practiceId: string, id: string, spec: LensSpec): Promise<string> {
  const found = () => sql<{ id: string }[]>`
    select id from lens where practice_id = ${practiceId} and family_version_id = ${spec.familyVersionId}
      and sphere_d = ${spec.sphereD} and cylinder_d = ${spec.cylinderD} and axis_deg = ${spec.axisDeg}
      and add_band is not distinct from ${spec.addBand} and base_curve_mm is not distinct from ${spec.baseCurveMm}
      and diameter_mm is not distinct from ${spec.diameterMm}`;
  const [there] = await found();
  if (there) return there.id;
  const [made] = await sql<{ id: string }[]>`
    insert into lens (id, practice_id, family_version_id, sphere_d, cylinder_d, axis_deg, add_band, base_curve_mm, diameter_mm)
    values (${id}, ${practiceId}, ${spec.familyVersionId}, ${spec.sphereD}, ${spec.cylinderD}, ${spec.axisDeg}, ${spec.addBand},
      ${spec.baseCurveMm}, ${spec.diameterMm})
    on conflict do nothing returning id`;
  if (made) return made.id;
  const [raced] = await found();
  if (!raced) throw new Error('The lens was neither found nor made');
  return raced.id;
}

export function listLenses(sql: Db, practiceId: string, ids: readonly string[]) {
  return sql<LensRow[]>`
    select l.id, l.family_version_id, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band, l.base_curve_mm, l.diameter_mm,
      f.code as family_code, f.name as family_name, f.maker, f.geometry, f.modality, f.mark_layout, f.settle_minutes, f.listed
    from lens l join lens_family_version f on f.id = l.family_version_id
    where l.practice_id = ${practiceId} and l.id = any (${[...ids]})`;
}
