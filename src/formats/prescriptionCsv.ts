import Papa from 'papaparse';
import {
  EYES,
  isIsoDate,
  MODALITIES,
  parseLensAdd,
  PURPOSES,
  toMinusCylinder,
  type ExchangedDocument,
  type ExchangedLens,
  type ExchangedPrescription,
  type Eye,
  type LeftAside,
  type LensAdd,
  type ReadDocument,
} from '../core';
import { err, ok, type ProblemData, type Result } from '../lib/outcome';
import { openCsv, type BrokenFile, type CsvRow } from './csv';

/** Columns of a prescription as a file of separated values: one line an eye. Documented in docs/prescription-formats.md. */
export const PRESCRIPTION_COLUMNS = [
  'number',
  'kind',
  'purpose',
  'eye',
  'sphere',
  'cylinder',
  'axis',
  'add',
  'add_d',
  'lens',
  'base_curve_mm',
  'diameter_mm',
  'replacement',
  'written_on',
  'created_at',
  'expires_on',
  'wearer',
  'birth_date',
  'telephone',
  'prescriber',
  'register_number',
  'prescriber_telephone',
  'prescriber_address',
] as const;
export type PrescriptionColumn = (typeof PRESCRIPTION_COLUMNS)[number];
const NEEDED: readonly PrescriptionColumn[] = ['eye', 'sphere'];
const MOST_LINES = 200;
/** What a table program would take for a formula is written with an apostrophe before it; figures keep their sign. */
const RISKY = /^[=@\t\r]|^[+-](?!\d+(\.\d+)?$)|^'+[=@+-]/;
const KINDS = ['contact', 'spectacles'] as const;

const signed = (value: number): string => (value < 0 ? '' : '+') + value.toFixed(2);

/** Writes prescriptions, one line an eye; figures keep their sign. */
export function writePrescriptions({ person, prescriber, prescriptions }: ExchangedDocument): string {
  const people = {
    wearer: person?.name ?? '',
    birth_date: person?.birthDate ?? '',
    telephone: person?.telephone ?? '',
    prescriber: prescriber?.name ?? '',
    register_number: prescriber?.registerNumber ?? '',
    prescriber_telephone: prescriber?.telephone ?? '',
    prescriber_address: prescriber?.address ?? '',
  };
  const rows = prescriptions.flatMap((p) =>
    EYES.flatMap((eye) => {
      const lens = p.eyes[eye];
      if (!lens) return [];
      const row: Record<PrescriptionColumn, string> = {
        ...people,
        number: p.number,
        kind: p.kind,
        purpose: p.purpose ?? '',
        eye,
        sphere: signed(lens.power.sphere),
        cylinder: lens.power.cylinder === 0 ? '' : signed(lens.power.cylinder),
        axis: lens.power.cylinder === 0 ? '' : String(lens.power.axis),
        add: lens.add ?? '',
        add_d: lens.addD === null ? '' : signed(lens.addD),
        lens: lens.brand,
        base_curve_mm: lens.baseCurveMm === null ? '' : String(lens.baseCurveMm),
        diameter_mm: lens.diameterMm === null ? '' : String(lens.diameterMm),
        replacement: lens.modality ?? '',
        written_on: p.writtenOn ?? '',
        created_at: p.createdAt ?? '',
        expires_on: p.expiresOn ?? '',
      };
      return [row];
    }),
  );
  return `\uFEFF${Papa.unparse(rows, { columns: [...PRESCRIPTION_COLUMNS], escapeFormulae: RISKY, newline: '\r\n' })}\r\n`;
}

/** Why nothing is taken: what is wrong with which line. */
export interface UnreadableLine {
  readonly code: BrokenFile['code'] | 'lineEye' | 'linePower' | 'lineFigure' | 'lineEyeTwice' | 'fileNoPrescription';
  readonly data: ProblemData;
}
type Row = CsvRow<PrescriptionColumn>;
/** A cell as it was before it was made harmless for table programs. */
const cell = (row: Row, column: PrescriptionColumn): string => (row.cells[column] ?? '').trim().replace(/^'(?='*[=@+-])/, '');
/** A figure with point or comma; null for none, NaN for what is no figure. */
function figure(row: Row, column: PrescriptionColumn): number | null {
  const text = cell(row, column).replace('−', '-').replace(',', '.');
  return text === '' ? null : /^[+-]?\d{1,3}(\.\d{1,3})?$/.test(text) ? Number(text) + 0 : NaN;
}
const FIGURES = { sphere: 40, cylinder: 20, axis: 180, add_d: 6, base_curve_mm: 12, diameter_mm: 25 } as const;
const oneOf = <T extends string>(list: readonly T[], text: string): T | null => list.find((v) => v === text) ?? null;

function lensOf(row: Row, left: LeftAside[]): Result<ExchangedLens, UnreadableLine> {
  const at = (column: PrescriptionColumn) => ({ line: row.line, column });
  const values: Partial<Record<keyof typeof FIGURES, number | null>> = {};
  for (const [column, most] of Object.entries(FIGURES) as [keyof typeof FIGURES, number][]) {
    const value = figure(row, column);
    if (value !== null && !(Math.abs(value) <= most)) return err({ code: 'lineFigure', data: { ...at(column), typed: cell(row, column).slice(0, 40) } });
    values[column] = value;
  }
  const { sphere = null, cylinder = null, axis = null } = values;
  if (sphere === null || (cylinder !== null && cylinder !== 0 && axis === null)) return err({ code: 'linePower', data: { line: row.line } });
  const power = toMinusCylinder({ sphere, cylinder: cylinder ?? 0, axis: axis ?? 180 });
  const word = <T extends string>(list: readonly T[], column: PrescriptionColumn): T | null => {
    const found = oneOf(list, cell(row, column));
    if (found === null && cell(row, column) !== '') left.push({ path: `${row.line}.${column}`, value: cell(row, column).slice(0, 200) });
    return found;
  };
  const addCell = (): LensAdd | null => {
    const typed = cell(row, 'add');
    const add = parseLensAdd(typed);
    if (add === null && typed !== '') left.push({ path: `${row.line}.add`, value: typed.slice(0, 200) });
    return add;
  };
  return ok({
    power,
    add: addCell(),
    addD: values.add_d ?? null,
    brand: cell(row, 'lens'),
    baseCurveMm: values.base_curve_mm ?? null,
    diameterMm: values.diameter_mm ?? null,
    modality: word(MODALITIES, 'replacement'),
  });
}

/** Reads prescriptions of a file: lines of one number are one prescription. Columns and words that mean nothing here are left aside and listed. */
export function readPrescriptions(bytes: Uint8Array): Result<ReadDocument, UnreadableLine> {
  const opened = openCsv(bytes, { columns: PRESCRIPTION_COLUMNS, needed: NEEDED, maxLines: MOST_LINES });
  if (!opened.ok) return opened;
  const left: LeftAside[] = opened.value.unknown.map((name) => ({ path: name, value: '' }));
  const found = new Map<string, { first: Row; eyes: Record<Eye, ExchangedLens | null> }>();
  for (const row of opened.value.rows) {
    const eye = oneOf(EYES, cell(row, 'eye').toLowerCase());
    if (eye === null) return err({ code: 'lineEye', data: { line: row.line, typed: cell(row, 'eye').slice(0, 40) } });
    const lens = lensOf(row, left);
    if (!lens.ok) return lens;
    const key = cell(row, 'number');
    const of = found.get(key) ?? { first: row, eyes: { right: null, left: null } };
    if (of.eyes[eye] !== null) return err({ code: 'lineEyeTwice', data: { line: row.line } });
    of.eyes[eye] = lens.value;
    found.set(key, of);
  }
  const [any] = [...found.values()];
  if (!any) return err({ code: 'fileNoPrescription', data: {} });
  const text = (column: PrescriptionColumn): string | null => cell(any.first, column) || null;
  const dayOf = (row: Row, column: PrescriptionColumn): string | null => {
    const typed = cell(row, column);
    if (typed === '' || isIsoDate(typed)) return typed || null;
    left.push({ path: `${row.line}.${column}`, value: typed.slice(0, 200) });
    return null;
  };
  const prescriptions = [...found].map(([number, { first, eyes }]): ExchangedPrescription => ({
    kind: oneOf(KINDS, cell(first, 'kind')) ?? 'contact',
    number,
    purpose: oneOf(PURPOSES, cell(first, 'purpose')),
    writtenOn: dayOf(first, 'written_on'),
    createdAt: cell(first, 'created_at') || null,
    expiresOn: dayOf(first, 'expires_on'),
    eyes,
  }));
  const person = text('wearer') === null ? null : { name: text('wearer') ?? '', birthDate: dayOf(any.first, 'birth_date'), telephone: text('telephone') };
  const prescriber =
    text('prescriber') === null
      ? null
      : {
          name: text('prescriber') ?? '',
          registerNumber: text('register_number'),
          telephone: text('prescriber_telephone'),
          address: text('prescriber_address'),
        };
  return ok({ document: { person, prescriber, prescriptions }, left });
}
