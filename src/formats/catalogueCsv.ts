import Papa from 'papaparse';
import { rangeCount, rangeValue, type CatalogueFamily, type LensBlock, type StepRange } from '../core';
import { err, ok, type ProblemData, type Result } from '../lib/outcome';
import { CATALOGUE_COLUMNS, FORMULA, isCatalogueColumn, NEEDED_COLUMNS, type CatalogueColumn, type CatalogueFault, type Cells } from '../schema/catalogue';

/** Largest file taken, bytes. */
export const CATALOGUE_MAX_BYTES = 32 * 1024 * 1024;
/** Most lines taken. */
export const CATALOGUE_MAX_LINES = 200_000;

export type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

/** Why a file cannot be read at all: nothing of it is taken. */
export interface BrokenFile {
  readonly code: 'fileEmpty' | 'fileNotText' | 'fileQuote' | 'fileColumns' | 'fileTwiceNamed' | 'fileLong';
  readonly data: ProblemData;
}

/** A file opened: its lines as cells by column, with the line each begins on. */
export interface OpenFile {
  readonly encoding: Encoding;
  readonly delimiter: string;
  /** Columns that mean nothing here and were left aside. */
  readonly unknown: readonly string[];
  readonly rows: readonly { readonly line: number; readonly cells: Cells; readonly count: number }[];
  /** How many cells a whole line has. */
  readonly width: number;
}

/** The characters of a file: by its mark, else UTF-8, else the old Western code page. Binary files are refused. */
function decode(bytes: Uint8Array): Result<{ readonly text: string; readonly encoding: Encoding }, BrokenFile> {
  const marked: readonly (readonly [Encoding, readonly number[]])[] = [
    ['utf-8', [0xef, 0xbb, 0xbf]],
    ['utf-16le', [0xff, 0xfe]],
    ['utf-16be', [0xfe, 0xff]],
  ];
  const found = marked.find(([, mark]) => mark.every((byte, i) => bytes[i] === byte));
  if (found) {
    const text = new TextDecoder(found[0]).decode(bytes);
    return text.includes('\0') ? err({ code: 'fileNotText', data: {} }) : ok({ text, encoding: found[0] });
  }
  if (bytes.includes(0)) return err({ code: 'fileNotText', data: {} });
  try {
    return ok({ text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'utf-8' });
  } catch {
    return ok({ text: new TextDecoder('windows-1252').decode(bytes), encoding: 'windows-1252' });
  }
}

/** What parts the cells: whatever finds most column names in the first line. Decimal commas mislead any guess from the data. */
function delimiterOf(text: string): string {
  const first = /^[^\r\n]*/.exec(text)?.[0] ?? '';
  const found = (delimiter: string): number => first.split(delimiter).filter((name) => isCatalogueColumn(name.replaceAll('"', '').trim().toLowerCase())).length;
  return [',', ';', '\t'].reduce((best, d) => (found(d) > found(best) ? d : best));
}

const newlines = (cells: readonly string[]): number => cells.reduce((sum, cell) => sum + (cell.match(/\r\n|\n|\r/g)?.length ?? 0), 0);

/**
 * Opens a catalogue file: comma, semicolon or tab, with a line of column names first. What is wrong with single
 * lines is found when they are read; what is wrong with the whole file is said here, and nothing of it is taken.
 */
export function openCatalogue(bytes: Uint8Array): Result<OpenFile, BrokenFile> {
  const decoded = decode(bytes);
  if (!decoded.ok) return decoded;
  const { text, encoding } = decoded.value;
  const plain = text.replace(/^\uFEFF/, '');
  const parsed = Papa.parse<string[]>(plain, { delimiter: delimiterOf(plain), skipEmptyLines: false });
  const quote = parsed.errors.find((e) => e.type === 'Quotes');
  const data = parsed.data;
  const [header] = data;
  if (!header || header.every((h) => h.trim() === '')) return err({ code: 'fileEmpty', data: {} });
  const starts: number[] = [];
  let line = 1;
  for (const row of data) {
    starts.push(line);
    line += 1 + newlines(row);
  }
  if (quote) return err({ code: 'fileQuote', data: { line: starts[quote.row ?? 0] ?? 1 } });
  if (data.length - 1 > CATALOGUE_MAX_LINES) return err({ code: 'fileLong', data: { lines: data.length - 1, max: CATALOGUE_MAX_LINES } });
  const names = header.map((h) => h.trim().toLowerCase());
  const missing = NEEDED_COLUMNS.filter((c) => !names.includes(c));
  if (missing.length > 0) return err({ code: 'fileColumns', data: { columns: missing.join(', ') } });
  const twice = names.find((n, i) => isCatalogueColumn(n) && names.indexOf(n) !== i);
  if (twice !== undefined) return err({ code: 'fileTwiceNamed', data: { column: twice } });
  const rows = data.flatMap((row, i) => {
    if (i === 0 || row.every((cell) => cell.trim() === '')) return [];
    const cells: Partial<Record<CatalogueColumn, string>> = {};
    for (const [at, name] of names.entries()) if (isCatalogueColumn(name)) cells[name] = row[at] ?? '';
    return [{ line: starts[i] ?? i + 1, cells, count: row.length }];
  });
  if (rows.length === 0) return err({ code: 'fileEmpty', data: {} });
  return ok({ encoding, delimiter: parsed.meta.delimiter, unknown: names.filter((n) => n !== '' && !isCatalogueColumn(n)), rows, width: names.length });
}

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
    reusable_trial: family.reusableTrial ? 'yes' : 'no',
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
