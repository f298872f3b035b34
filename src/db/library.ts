import 'server-only';
import type { CareSystem, Geometry, Modality } from '../core';
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

export interface HouseListRow {
  readonly id: string;
  readonly modality: Modality;
  readonly geometry: Geometry;
  /** Up to three family codes, tried in this order. */
  readonly codes: readonly string[];
  readonly recordedAt: string;
  readonly recordedByName: string;
}

/** The newest list of every cell. */
export async function listHouseList(sql: Db, practiceId: string): Promise<HouseListRow[]> {
  return sql<HouseListRow[]>`
    select distinct on (h.modality, h.geometry) h.id, h.modality, h.geometry, h.codes, h.recorded_at, p.display_name as recorded_by_name
    from house_list h join person p on p.id = h.recorded_by
    where h.practice_id = ${practiceId} order by h.modality, h.geometry, h.sequence desc`;
}

export async function insertHouseList(
  sql: Db,
  h: { id: string; practiceId: string; modality: Modality; geometry: Geometry; codes: readonly string[]; at: string; by: string },
): Promise<void> {
  await sql`
    insert into house_list (id, practice_id, modality, geometry, codes, recorded_at, recorded_by)
    values (${h.id}, ${h.practiceId}, ${h.modality}, ${h.geometry}, ${sql.array([...h.codes])}::text[], ${h.at}, ${h.by})`;
}

export interface CareProductRow {
  readonly productId: string;
  readonly version: number;
  readonly system: CareSystem;
  readonly maker: string;
  readonly name: string;
  readonly contents: string;
  readonly lastsDays: number;
  readonly priceMinor: number;
  readonly includesCase: boolean;
  readonly ended: boolean;
  readonly recordedAt: string;
  readonly recordedByName: string;
}

/** The newest version of every care product, ended ones last. */
export async function listCareProducts(sql: Db, practiceId: string): Promise<CareProductRow[]> {
  return sql<CareProductRow[]>`
    select * from (
      select distinct on (c.product_id) c.product_id, c.version, c.system, c.maker, c.name, c.contents, c.lasts_days, c.price_minor,
        c.includes_case, c.ended, c.recorded_at, p.display_name as recorded_by_name
      from care_product c join person p on p.id = c.recorded_by
      where c.practice_id = ${practiceId} order by c.product_id, c.version desc) newest
    order by ended, name`;
}

/** Appends a version; false when somebody else appended it first. */
export async function insertCareProduct(
  sql: Db,
  c: Omit<CareProductRow, 'recordedByName'> & { readonly id: string; readonly practiceId: string; readonly recordedBy: string },
): Promise<boolean> {
  const rows = await sql`insert into care_product ${sql(c)} on conflict do nothing returning id`;
  return rows.length > 0;
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
  readonly addBand: 'low' | 'medium' | 'high' | null;
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
