import 'server-only';
import type { AddBand, CatalogueFamily, CurveDiameter, Geometry, LensBlock, MarkLayout, Modality } from '../core';
import type { Db } from './client';

/** A version of a family as stored, without what it makes. `startsOn` null: it always held. */
export interface FamilyRow extends Omit<CatalogueFamily, 'blocks'> {
  readonly id: string;
  readonly version: number;
  readonly listed: boolean;
  /** Last day it can be ordered; null while no end is set. */
  readonly lastOrderOn: string | null;
  readonly replacedBy: string | null;
}

export interface FamilyWithBlocks extends FamilyRow {
  readonly blocks: readonly LensBlock[];
}

/** What of a stored family a catalogue says. */
export function asCatalogue(stored: FamilyWithBlocks): CatalogueFamily {
  const { id: _id, version: _version, listed: _listed, lastOrderOn: _last, replacedBy: _by, ...family } = stored;
  return family;
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
  f.id, f.code, f.version, f.listed, f.maker, f.name, f.geometry, f.modality, f.material, f.water_percent, f.dk, f.dkt_centre, f.dkt_thickest,
  f.modulus_mpa, f.ionic_group, f.overnight_approved, f.min_age, f.mark_layout, f.stabilisation, f.rotation_mean, f.rotation_sd,
  f.settle_minutes, f.pack_size, f.pack_price_minor, f.rebate_minor, f.lead_days, f.multifocal_design, f.reusable_trial, f.starts_on,
  e.last_order_on, e.replaced_by`;
/** The ending that holds for a family, if any. */
const ending = (sql: Db) => sql`
  left join lateral (
    select last_order_on, replaced_by from lens_family_ending g
    where g.practice_id = f.practice_id and g.code = f.code order by g.sequence desc limit 1) e on true`;

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
  const byFamily = new Map<string, LensBlock[]>();
  for (const row of blocks) {
    const list = byFamily.get(row.familyVersionId);
    if (list) list.push(toBlock(row));
    else byFamily.set(row.familyVersionId, [toBlock(row)]);
  }
  return families.map((family) => ({ ...family, blocks: byFamily.get(family.id) ?? [] }));
}

/** The version in force on a day of every listed family, ended ones included. */
export async function listFamilies(sql: Db, practiceId: string, today: string): Promise<FamilyWithBlocks[]> {
  const rows = await sql<FamilyRow[]>`
    select * from (
      select distinct on (f.code) ${familyColumns(sql)} from lens_family_version f ${ending(sql)}
      where f.practice_id = ${practiceId} and f.listed and (f.starts_on is null or f.starts_on <= ${today})
      order by f.code, f.starts_on desc nulls last, f.version desc) newest
    order by name`;
  return withBlocks(sql, practiceId, rows);
}

/** A family version; the exact one, so that history keeps the catalogue it was made with. */
export async function findFamily(sql: Db, practiceId: string, id: string): Promise<FamilyWithBlocks | null> {
  const rows = await sql<FamilyRow[]>`
    select ${familyColumns(sql)} from lens_family_version f ${ending(sql)} where f.practice_id = ${practiceId} and f.id = ${id}`;
  return (await withBlocks(sql, practiceId, rows))[0] ?? null;
}

/** The version of a code that is in force on a day. */
export async function findFamilyInForce(sql: Db, practiceId: string, code: string, today: string): Promise<FamilyWithBlocks | null> {
  const rows = await sql<FamilyRow[]>`
    select ${familyColumns(sql)} from lens_family_version f ${ending(sql)}
    where f.practice_id = ${practiceId} and f.code = ${code} and f.listed and (f.starts_on is null or f.starts_on <= ${today})
    order by f.starts_on desc nulls last, f.version desc limit 1`;
  return (await withBlocks(sql, practiceId, rows))[0] ?? null;
}

export interface VersionMark {
  readonly createdAt: string;
  readonly createdByName: string | null;
}

/** Every version of a code, the newest first, announced ones included. */
export async function listFamilyVersions(sql: Db, practiceId: string, code: string): Promise<(FamilyWithBlocks & VersionMark)[]> {
  const rows = await sql<(FamilyRow & VersionMark)[]>`
    select ${familyColumns(sql)}, f.created_at, p.display_name as created_by_name
    from lens_family_version f ${ending(sql)} left join person p on p.id = f.created_by
    where f.practice_id = ${practiceId} and f.code = ${code} and f.listed order by f.version desc`;
  const whole = await withBlocks(sql, practiceId, rows);
  return rows.map((row, i) => ({ ...row, blocks: whole[i]?.blocks ?? [] }));
}

/** The highest version number of a code; 0 where there is none. */
export async function newestVersion(sql: Db, practiceId: string, code: string): Promise<number> {
  const [row] = await sql<{ version: number | null }[]>`
    select max(version) as version from lens_family_version where practice_id = ${practiceId} and code = ${code}`;
  return row?.version ?? 0;
}

/** A family to be stored: figures left out are not known. */
type Needed = 'code' | 'maker' | 'name' | 'geometry' | 'modality' | 'material' | 'overnightApproved' | 'markLayout' | 'stabilisation' | 'settleMinutes';
type Trade = 'packSize' | 'packPriceMinor' | 'leadDays' | 'blocks';
export type NewFamily = Pick<CatalogueFamily, Needed | Trade> &
  Partial<CatalogueFamily> & { readonly id: string; readonly version: number; readonly listed: boolean; readonly createdBy?: string | null };

export async function insertFamily(sql: Db, practiceId: string, family: NewFamily, at: string, newId: () => string): Promise<void> {
  const { blocks, ...row } = family;
  await sql`insert into lens_family_version ${sql({ ...row, practiceId, createdAt: at })}`;
  // One statement a thousand blocks: a family listed power by power has many.
  for (let from = 0; from < blocks.length; from += 1000) {
    const rows = blocks.slice(from, from + 1000).map((block, i) => ({
      id: newId(),
      sphere_from: block.spheres.from,
      sphere_to: block.spheres.to,
      sphere_step: block.spheres.step,
      cylinders: [...block.cylinders],
      axis_from: block.axes.from,
      axis_to: block.axes.to,
      axis_step: block.axes.step,
      adds: block.adds.filter((a): a is AddBand => a !== null),
      curves: block.curves.map((c) => ({ baseCurve: c.baseCurve, diameter: c.diameter })),
      sort_order: from + i,
    }));
    await sql`
      insert into lens_block (id, practice_id, family_version_id, sphere_from, sphere_to, sphere_step, cylinders,
        axis_from, axis_to, axis_step, adds, curves, sort_order)
      select id, ${practiceId}, ${family.id}, sphere_from, sphere_to, sphere_step, cylinders, axis_from, axis_to, axis_step, adds, curves, sort_order
      from jsonb_to_recordset(${sql.json(rows)}) as b (id uuid, sphere_from numeric, sphere_to numeric, sphere_step numeric, cylinders numeric[],
        axis_from integer, axis_to integer, axis_step integer, adds text[], curves jsonb, sort_order integer)`;
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
  readonly familyCode: string;
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
      f.code as family_code, f.name as family_name, f.maker, f.geometry, f.modality, f.mark_layout, f.settle_minutes, f.listed
    from lens l join lens_family_version f on f.id = l.family_version_id
    where l.practice_id = ${practiceId} and l.id = any (${[...ids]})`;
}

export interface TrialStockRow extends LensSpec {
  readonly id: string;
  readonly lensId: string;
  readonly familyCode: string;
  readonly lot: string;
  readonly expiresOn: string;
  readonly count: number;
}

export async function listTrialStock(sql: Db, practiceId: string): Promise<TrialStockRow[]> {
  return sql<TrialStockRow[]>`
    select s.id, s.lens_id, s.lot, s.expires_on, s.count, l.family_version_id, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band,
      l.base_curve_mm, l.diameter_mm, f.code as family_code
    from trial_stock s join lens l on l.id = s.lens_id join lens_family_version f on f.id = l.family_version_id
    where s.practice_id = ${practiceId} order by s.expires_on`;
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
