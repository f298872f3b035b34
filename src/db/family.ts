import 'server-only';
import type { LensAdd, CatalogueFamily, CurveDiameter, LensBlock, PracticeTurn, ReorderTrade } from '../core';
import { revived } from './bundle';
import type { Db } from './client';

/** A version of a family as stored, without what it makes. `startsOn` null: it always held. */
export interface FamilyRow extends Omit<CatalogueFamily, 'blocks'> {
  readonly id: string;
  readonly version: number;
  readonly listed: boolean;
  /** Last day it can be ordered; null while no end is set. */
  readonly lastOrderOn: string | null;
  readonly replacedBy: string | null;
  /** How its marks came to sit on this practice's eyes; null where none was measured. */
  readonly practiceTurn: PracticeTurn | null;
}

export interface FamilyWithBlocks extends FamilyRow {
  readonly blocks: readonly LensBlock[];
}

/** What of a stored family a catalogue says. */
export function asCatalogue(stored: FamilyWithBlocks): CatalogueFamily {
  const { id: _id, version: _version, listed: _listed, lastOrderOn: _last, replacedBy: _by, practiceTurn: _turn, ...family } = stored;
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
  readonly adds: LensAdd[];
  readonly curves: CurveDiameter[];
}

const familyColumns = (sql: Db) => sql`
  f.id, f.code, f.version, f.listed, f.maker, f.name, f.geometry, f.modality, f.material, f.water_percent, f.dk, f.dkt_centre, f.dkt_thickest,
  f.modulus_mpa, f.ionic_group, f.overnight_approved, f.min_age, f.myopia_hours, f.myopia_days, f.mark_layout, f.stabilisation, f.rotation_mean, f.rotation_sd,
  f.settle_minutes, f.pack_size, f.pack_price_minor, f.rebate_minor, f.lead_days, f.multifocal_design, f.add_table, f.start_table, f.change_rule, f.reusable_trial, f.irregular, f.mark_spacing, f.sight_minutes, f.set_table,
  f.disinfect_with, f.disinfect_minutes, f.starts_on,
  e.last_order_on, e.replaced_by,
  (select jsonb_build_object('mean', t.mean_deg, 'sd', t.sd_deg, 'eyes', t.eyes) from family_turn t
    where t.practice_id = f.practice_id and t.code = f.code) as practice_turn,
  (select coalesce(jsonb_agg(to_jsonb(b) order by b.sort_order), '[]') from lens_block b
    where b.practice_id = f.practice_id and b.family_version_id = f.id) as blocks`;
/** The ending that holds for a family, if any. */
const ending = (sql: Db) => sql`
  left join lateral (
    select last_order_on, replaced_by from lens_family_ending g
    where g.practice_id = f.practice_id and g.code = f.code order by g.sequence desc limit 1) e on true`;

const toBlock = (row: BlockRow): LensBlock => ({
  spheres: { from: row.sphereFrom, to: row.sphereTo, step: row.sphereStep },
  cylinders: row.cylinders,
  axes: { from: row.axisFrom, to: row.axisTo, step: row.axisStep },
  adds: row.adds.length === 0 ? [null] : row.adds,
  curves: row.curves,
});

/** A family as it comes: its blocks as JSON. */
type Stored = FamilyRow & { readonly blocks: readonly object[] };
/** A family as it is stored, with what it makes. */
export const asFamily = <F extends Stored>(row: F): Omit<F, 'blocks'> & FamilyWithBlocks => ({ ...row, blocks: row.blocks.map((b) => toBlock(revived(b))) });

/** The version in force on a day of every listed family, ended ones included. */
export async function listFamilies(sql: Db, practiceId: string, today: string): Promise<FamilyWithBlocks[]> {
  const rows = await sql<Stored[]>`
    select * from (
      select distinct on (f.code) ${familyColumns(sql)} from lens_family_version f ${ending(sql)}
      where f.practice_id = ${practiceId} and f.listed and (f.starts_on is null or f.starts_on <= ${today})
      order by f.code, f.starts_on desc nulls last, f.version desc) newest
    order by name`;
  return rows.map(asFamily);
}

/** The version in force on a day of every family of which some lenses are; `asFamily` reads what comes. */
export const familiesOfLenses = (sql: Db, practiceId: string, lensIds: readonly string[], today: string) => sql<Stored[]>`
  select distinct on (f.code) ${familyColumns(sql)} from lens_family_version f ${ending(sql)}
  where f.practice_id = ${practiceId} and f.listed and (f.starts_on is null or f.starts_on <= ${today})
    and f.code in (select g.code from lens l join lens_family_version g on g.id = l.family_version_id
      where l.practice_id = ${practiceId} and l.id = any (${[...lensIds]}))
  order by f.code, f.starts_on desc nulls last, f.version desc`;

/** Is a toric with an addition to be had on a day? */
export async function hasToricAdd(sql: Db, practiceId: string, today: string): Promise<boolean> {
  const [row] = await sql`
    select 1 from (
      select distinct on (f.code) f.geometry, e.last_order_on from lens_family_version f ${ending(sql)}
      where f.practice_id = ${practiceId} and f.listed and (f.starts_on is null or f.starts_on <= ${today})
      order by f.code, f.starts_on desc nulls last, f.version desc) newest
    where geometry = 'toricMultifocal' and (last_order_on is null or last_order_on >= ${today}) limit 1`;
  return row !== undefined;
}

/** What families are sold in on a day, by their codes; what is not listed is left out. */
export const listTrade = (sql: Db, practiceId: string, codes: readonly string[], today: string) => sql<(ReorderTrade & { readonly code: string })[]>`
  select distinct on (f.code) f.code, f.pack_size, f.pack_price_minor, f.rebate_minor, e.last_order_on,
    -- What the supplier of this maker really takes, where that is known to be longer.
    greatest(f.lead_days, (select s.learned_lead_days from supplier s
      where s.practice_id = f.practice_id and not s.ended and (s.makers = '{}' or exists (select 1 from unnest(s.makers) m where lower(trim(m)) = lower(trim(f.maker))))
      order by s.makers = '{}', s.sort_order, s.name limit 1)) as lead_days
  from lens_family_version f ${ending(sql)}
  where f.practice_id = ${practiceId} and f.code = any (${[...codes]}) and f.listed and (f.starts_on is null or f.starts_on <= ${today})
  order by f.code, f.starts_on desc nulls last, f.version desc`;

/** A family version; the exact one, so that history keeps the catalogue it was made with. */
export async function findFamily(sql: Db, practiceId: string, id: string): Promise<FamilyWithBlocks | null> {
  const rows = await sql<Stored[]>`
    select ${familyColumns(sql)} from lens_family_version f ${ending(sql)} where f.practice_id = ${practiceId} and f.id = ${id}`;
  return rows[0] ? asFamily(rows[0]) : null;
}

/** The version of a code that is in force on a day. */
export async function findFamilyInForce(sql: Db, practiceId: string, code: string, today: string): Promise<FamilyWithBlocks | null> {
  const rows = await sql<Stored[]>`
    select ${familyColumns(sql)} from lens_family_version f ${ending(sql)}
    where f.practice_id = ${practiceId} and f.code = ${code} and f.listed and (f.starts_on is null or f.starts_on <= ${today})
    order by f.starts_on desc nulls last, f.version desc limit 1`;
  return rows[0] ? asFamily(rows[0]) : null;
}

/** The versions in force on a day of the families of which some versions are named, by the version named; what is not listed is left out. */
export async function listInForceOf(sql: Db, practiceId: string, versionIds: readonly string[], today: string): Promise<ReadonlyMap<string, FamilyWithBlocks>> {
  const rows = await sql<(Stored & { readonly named: string })[]>`
    select distinct on (n.id) n.id as named, ${familyColumns(sql)}
    from lens_family_version n join lens_family_version f on f.practice_id = n.practice_id and f.code = n.code ${ending(sql)}
    where n.practice_id = ${practiceId} and n.id = any (${[...versionIds]}) and n.listed and f.listed and (f.starts_on is null or f.starts_on <= ${today})
    order by n.id, f.starts_on desc nulls last, f.version desc`;
  return new Map(rows.map(({ named, ...row }) => [named, asFamily(row)]));
}

export interface VersionMark {
  readonly createdAt: string;
  readonly createdByName: string | null;
}

/** Every version of a code, the newest first, announced ones included. */
export async function listFamilyVersions(sql: Db, practiceId: string, code: string): Promise<(FamilyWithBlocks & VersionMark)[]> {
  const rows = await sql<(Stored & VersionMark)[]>`
    select ${familyColumns(sql)}, f.created_at, p.display_name as created_by_name
    from lens_family_version f ${ending(sql)} left join person p on p.id = f.created_by
    where f.practice_id = ${practiceId} and f.code = ${code} and f.listed order by f.version desc`;
  return rows.map(asFamily);
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
  const { blocks, addTable = [], startTable = [], setTable = [], changeRule = null, ...row } = family;
  const json = (value: unknown) => sql.json(value as never);
  const tables = { addTable: json(addTable), startTable: json(startTable), setTable: json(setTable), changeRule: changeRule && json(changeRule) };
  await sql`insert into lens_family_version ${sql({ ...row, ...tables, practiceId, createdAt: at })}`;
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
      adds: block.adds.filter((a): a is LensAdd => a !== null),
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

/** Names of every family that was ever listed, newest name of each code. */
export const listFamilyNames = (sql: Db, practiceId: string) => sql<{ readonly code: string; readonly name: string }[]>`
  select code, name from (select distinct on (code) code, name from lens_family_version where practice_id = ${practiceId} and listed order by code, version desc) f order by name`;
