import 'server-only';
import type { AddBand, CurveDiameter, Geometry, LensBlock, MarkLayout, Modality, Stabilisation } from '../core';
import type { Db } from './client';

export interface FamilyRow {
  readonly id: string;
  readonly code: string;
  readonly version: number;
  readonly listed: boolean;
  readonly maker: string;
  readonly name: string;
  readonly geometry: Geometry;
  readonly modality: Modality;
  readonly material: string;
  readonly waterPercent: number | null;
  readonly dktCentre: number | null;
  readonly dktThickest: number | null;
  readonly overnightApproved: boolean;
  readonly markLayout: MarkLayout;
  readonly stabilisation: Stabilisation | null;
  readonly settleMinutes: number;
  readonly packSize: number;
  readonly packPriceMinor: number;
  readonly leadDays: number;
}

export interface FamilyWithBlocks extends FamilyRow {
  readonly blocks: readonly LensBlock[];
}

interface BlockRow {
  readonly familyVersionId: string;
  readonly sphereFrom: number;
  readonly sphereTo: number;
  readonly sphereStep: number;
  readonly cylinders: number[];
  readonly axisFrom: number;
  readonly axisTo: number;
  readonly axisStep: number;
  readonly adds: AddBand[];
  readonly curves: CurveDiameter[];
}

const familyColumns = (sql: Db) => sql`
  id, code, version, listed, maker, name, geometry, modality, material, water_percent, dkt_centre, dkt_thickest,
  overnight_approved, mark_layout, stabilisation, settle_minutes, pack_size, pack_price_minor, lead_days`;

const toBlock = (row: BlockRow): LensBlock => ({
  spheres: { from: row.sphereFrom, to: row.sphereTo, step: row.sphereStep },
  cylinders: row.cylinders.map(Number),
  axes: { from: row.axisFrom, to: row.axisTo, step: row.axisStep },
  adds: row.adds.length === 0 ? [null] : row.adds,
  curves: row.curves,
});

async function withBlocks(sql: Db, practiceId: string, families: readonly FamilyRow[]): Promise<FamilyWithBlocks[]> {
  const blocks = await sql<BlockRow[]>`
    select family_version_id, sphere_from, sphere_to, sphere_step, cylinders, axis_from, axis_to, axis_step, adds, curves
    from lens_block where practice_id = ${practiceId} and family_version_id = any (${families.map((f) => f.id)})
    order by sort_order`;
  return families.map((family) => ({
    ...family,
    blocks: blocks.filter((b) => b.familyVersionId === family.id).map(toBlock),
  }));
}

/** Newest version of every listed family. */
export async function listFamilies(sql: Db, practiceId: string): Promise<FamilyWithBlocks[]> {
  const rows = await sql<FamilyRow[]>`
    select ${familyColumns(sql)} from lens_family_version f
    where practice_id = ${practiceId} and listed
      and version = (select max(version) from lens_family_version g where g.practice_id = f.practice_id and g.code = f.code)
    order by name`;
  return withBlocks(sql, practiceId, rows);
}

/** A family version; the exact one, so that history keeps the catalogue it was made with. */
export async function findFamily(sql: Db, practiceId: string, id: string): Promise<FamilyWithBlocks | null> {
  const rows = await sql<FamilyRow[]>`
    select ${familyColumns(sql)} from lens_family_version where practice_id = ${practiceId} and id = ${id}`;
  return (await withBlocks(sql, practiceId, rows))[0] ?? null;
}

export interface NewFamily extends Omit<FamilyWithBlocks, 'waterPercent' | 'dktCentre' | 'dktThickest'> {
  readonly waterPercent?: number | null;
  readonly dk?: number | null;
  readonly dktCentre?: number | null;
  readonly dktThickest?: number | null;
  readonly modulusMpa?: number | null;
  readonly multifocalDesign?: string | null;
}

export async function insertFamily(sql: Db, practiceId: string, family: NewFamily, at: string, newId: () => string): Promise<void> {
  const { blocks, ...row } = family;
  await sql`insert into lens_family_version ${sql({ ...row, practiceId, createdAt: at })}`;
  for (const [index, block] of blocks.entries()) {
    await sql`
      insert into lens_block (id, practice_id, family_version_id, sphere_from, sphere_to, sphere_step, cylinders,
        axis_from, axis_to, axis_step, adds, curves, sort_order)
      values (${newId()}, ${practiceId}, ${family.id}, ${block.spheres.from}, ${block.spheres.to}, ${block.spheres.step},
        ${sql.array([...block.cylinders])}::numeric[], ${block.axes.from}, ${block.axes.to}, ${block.axes.step},
        ${sql.array(block.adds.filter((a): a is AddBand => a !== null))}::text[],
        ${sql.json(block.curves.map((c) => ({ baseCurve: c.baseCurve, diameter: c.diameter })))}, ${index})`;
  }
}

export interface LensSpec {
  readonly familyVersionId: string;
  readonly sphereD: number;
  readonly cylinderD: number;
  readonly axisDeg: number;
  readonly addBand: AddBand | null;
  readonly baseCurveMm: number | null;
  readonly diameterMm: number | null;
}

export interface LensRow extends LensSpec {
  readonly id: string;
  readonly familyName: string;
  readonly maker: string;
  readonly geometry: Geometry;
  readonly modality: Modality;
  readonly markLayout: MarkLayout;
  readonly settleMinutes: number;
  readonly listed: boolean;
}

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

export async function listLenses(sql: Db, practiceId: string, ids: readonly string[]): Promise<LensRow[]> {
  return sql<LensRow[]>`
    select l.id, l.family_version_id, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band, l.base_curve_mm, l.diameter_mm,
      f.name as family_name, f.maker, f.geometry, f.modality, f.mark_layout, f.settle_minutes, f.listed
    from lens l join lens_family_version f on f.id = l.family_version_id
    where l.practice_id = ${practiceId} and l.id = any (${[...ids]})`;
}

export interface TrialStockRow extends LensSpec {
  readonly id: string;
  readonly lensId: string;
  readonly lot: string;
  readonly expiresOn: string;
  readonly count: number;
}

export async function listTrialStock(sql: Db, practiceId: string): Promise<TrialStockRow[]> {
  return sql<TrialStockRow[]>`
    select s.id, s.lens_id, s.lot, s.expires_on, s.count, l.family_version_id, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band,
      l.base_curve_mm, l.diameter_mm
    from trial_stock s join lens l on l.id = s.lens_id
    where s.practice_id = ${practiceId} order by s.expires_on`;
}

/** Takes one lens from the drawer, soonest to expire first, never an expired one. Null when there is none. */
export async function takeTrial(sql: Db, practiceId: string, lensId: string, today: string): Promise<{ id: string; lot: string; expiresOn: string } | null> {
  const [row] = await sql<{ id: string; lot: string; expiresOn: string }[]>`
    update trial_stock set count = count - 1
    where id = (
      select id from trial_stock
      where practice_id = ${practiceId} and lens_id = ${lensId} and count > 0 and expires_on >= ${today}
      order by expires_on limit 1 for update)
    returning id, lot, expires_on`;
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
