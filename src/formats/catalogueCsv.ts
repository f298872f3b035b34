import Papa from 'papaparse';
import { rangeCount, rangeValue, type CatalogueFamily, type LensBlock, type StepRange, writeAddTable, writeChangeRule, writeSetTable, writeStartTable } from '../core';
import type { Result } from '../lib/outcome';
import { CATALOGUE_COLUMNS, FORMULA, NEEDED_COLUMNS, type CatalogueColumn, type CatalogueFault } from '../schema/catalogue';
import { openCsv, type BrokenFile, type CsvFile } from './csv';

/** Largest file taken, bytes. */
export const CATALOGUE_MAX_BYTES = 32 * 1024 * 1024;
/** Most lines taken. */
export const CATALOGUE_MAX_LINES = 200_000;

/** Opens a catalogue file. */
export const openCatalogue = (bytes: Uint8Array): Result<CsvFile<CatalogueColumn>, BrokenFile> =>
  openCsv(bytes, { columns: CATALOGUE_COLUMNS, needed: NEEDED_COLUMNS, maxLines: CATALOGUE_MAX_LINES });

const shown = (value: number | null): string => (value === null ? '' : String(value));
const power = (value: number): string => value.toFixed(2);
const money = (minor: number): string => (minor / 100).toFixed(2);
const last = (range: StepRange): number => rangeValue(range, rangeCount(range) - 1);
const spaced = (words: string | null): string => words ?? '';

/** One line of the file: a block with the facts of its family. */
export function cellsOf(family: CatalogueFamily, block: LensBlock): Record<CatalogueColumn, string> {
  const turned = block.cylinders.some((c) => c !== 0);
  return {
    family_code: family.code,
    maker: family.maker,
    name: family.name,
    geometry: family.geometry,
    modality: family.modality,
    material: family.material,
    water_percent: shown(family.waterPercent),
    dk: shown(family.dk),
    dkt_centre: shown(family.dktCentre),
    dkt_thickest: shown(family.dktThickest),
    modulus_mpa: shown(family.modulusMpa),
    ionic_group: spaced(family.ionicGroup),
    overnight_approved: family.overnightApproved ? 'yes' : 'no',
    min_age: shown(family.minAge),
    myopia_hours: shown(family.myopiaHours),
    myopia_days: shown(family.myopiaDays),
    mark_layout: family.markLayout,
    stabilisation: spaced(family.stabilisation),
    rotation_mean: shown(family.rotationMean),
    rotation_sd: shown(family.rotationSd),
    settle_minutes: shown(family.settleMinutes),
    pack_size: shown(family.packSize),
    pack_price: money(family.packPriceMinor),
    rebate: money(family.rebateMinor),
    lead_days: shown(family.leadDays),
    multifocal_design: spaced(family.multifocalDesign),
    add_table: writeAddTable(family.addTable),
    start_table: writeStartTable(family.startTable),
    change_rule: family.changeRule ? writeChangeRule(family.changeRule) : '',
    reusable_trial: family.reusableTrial ? 'yes' : 'no',
    irregular: family.irregular ? 'yes' : 'no',
    mark_spacing: shown(family.markSpacing),
    sight_minutes: shown(family.sightMinutes),
    set_table: writeSetTable(family.setTable),
    disinfect_with: spaced(family.disinfectWith),
    disinfect_minutes: shown(family.disinfectMinutes),
    sphere_from: power(block.spheres.from),
    sphere_to: power(last(block.spheres)),
    sphere_step: power(block.spheres.step),
    // A bar, not a space: no spreadsheet takes `-0.75|-1.25` for a sum.
    cylinders: turned ? block.cylinders.map(power).join('|') : '',
    axis_from: turned ? shown(block.axes.from) : '',
    axis_to: turned ? shown(last(block.axes)) : '',
    axis_step: turned ? shown(block.axes.step) : '',
    adds: block.adds.filter((a) => a !== null).join('|'),
    curves: block.curves.map((c) => `${c.baseCurve}/${c.diameter}`).join('|'),
  };
}

/** Cells that begin like a formula and are none of ours. */
const RISKY = new RegExp(`${FORMULA.source.replace('$)', '(\\||$))')}`);

/** Families as a catalogue file: one line a block, commas, a line of names first, UTF-8 with its mark for spreadsheets. */
export function writeCatalogue(families: readonly CatalogueFamily[]): string {
  const rows = families.flatMap((family) => family.blocks.map((block) => cellsOf(family, block)));
  return `\uFEFF${Papa.unparse({ fields: [...CATALOGUE_COLUMNS], data: rows }, { escapeFormulae: RISKY, newline: '\r\n' })}\r\n`;
}

/** Faults as a file, to be mended where the catalogue comes from. */
export function writeFaults(faults: readonly CatalogueFault[]): string {
  const rows = faults.map((f) => {
    const { column = '', typed = '', ...more } = f.data;
    return {
      line: f.line,
      gravity: f.gravity,
      fault: f.code,
      column,
      typed,
      more: Object.entries(more)
        .map(([k, v]) => `${k} ${v}`)
        .join(', '),
    };
  });
  return `\uFEFF${Papa.unparse(rows, { columns: ['line', 'gravity', 'fault', 'column', 'typed', 'more'], escapeFormulae: RISKY, newline: '\r\n' })}\r\n`;
}
