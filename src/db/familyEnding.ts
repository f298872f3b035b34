import { type LensAdd } from '../core';
import 'server-only';
import type { Db } from './client';

/** What a practice keeps beside its lens families: endings, the house list, care products. All appended. */

export async function insertEnding(
  sql: Db,
  e: {
    id: string;
    practiceId: string;
    code: string;
    lastOrderOn: string | null;
    replacedBy: string | null;
    reason: string;
    recordedAt: string;
    recordedBy: string;
  },
): Promise<void> {
  await sql`insert into lens_family_ending ${sql(e)}`;
}

/** Who has lenses of a family: wearers by what they have of it, for the consequences of a change. */
export interface FamilyUse {
  readonly wearerId: string;
  readonly name: string;
  readonly birthDate: string;
  readonly eye: 'right' | 'left';
  readonly prescriptionId: string;
  readonly number: number;
  readonly expiresOn: string;
  readonly lensId: string;
  readonly sphereD: number;
  readonly cylinderD: number;
  readonly axisDeg: number;
  readonly addBand: LensAdd | null;
  readonly baseCurveMm: number;
  readonly diameterMm: number;
}

/** Eyes whose newest prescription is of a family and has not run out. */
export async function listFamilyUse(sql: Db, practiceId: string, code: string, today: string): Promise<FamilyUse[]> {
  return sql<FamilyUse[]>`
    with newest as (
      select distinct on (wearer_id) id, wearer_id, number, expires_on from prescription
      where practice_id = ${practiceId} order by wearer_id, number desc)
    select i.wearer_id, i.name, i.birth_date, e.eye, n.id as prescription_id, n.number, n.expires_on,
      l.id as lens_id, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band, l.base_curve_mm, l.diameter_mm
    from newest n join wearer_identity i on i.wearer_id = n.wearer_id
    join prescription_eye e on e.prescription_id = n.id join lens l on l.id = e.lens_id join lens_family_version f on f.id = l.family_version_id
    where i.practice_id = ${practiceId} and f.code = ${code} and n.expires_on >= ${today}
    order by i.name, e.eye desc`;
}
