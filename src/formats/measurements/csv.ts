import {
  CURVE_LIMIT,
  EYES,
  inOrder,
  inQuarters,
  isIsoDate,
  LIMITS,
  MEASURED_HOW,
  toMinusCylinder,
  type Eye,
  type LeftAside,
  type MeasuredEye,
  type MeasuredFile,
  type MeasuredHow,
  type MeasuredPart,
} from '../../core';
import { err, ok, type ProblemData, type Result } from '../../lib/outcome';
import { openCsv, type BrokenFile, type CsvRow } from '../csv';

/** Columns of measurements as a file of separated values: one line an eye and instrument. Documented in docs/measurement-formats.md. */
export const MEASUREMENT_COLUMNS = [
  'wearer',
  'birth_date',
  'measured_at',
  'device',
  'how',
  'eye',
  'sphere',
  'cylinder',
  'axis',
  'vertex_mm',
  'k_flat_mm',
  'k_flat_axis',
  'k_steep_mm',
] as const;
export type MeasurementColumn = (typeof MEASUREMENT_COLUMNS)[number];
const MOST_LINES = 40;

export interface UnreadableLine {
  readonly code: BrokenFile['code'] | 'lineEye' | 'lineHow' | 'linePower' | 'lineFigure' | 'lineEyeTwice' | 'measurementEmpty' | 'measurementPeople';
  readonly data: ProblemData;
}
type Row = CsvRow<MeasurementColumn>;
const cell = (row: Row, column: MeasurementColumn): string => (row.cells[column] ?? '').trim().replace(/^'(?='*[=@+-])/, '');

/** Bounds of each figure. */
const FIGURES = {
  sphere: LIMITS.sphere,
  cylinder: { min: LIMITS.cylinder.min, max: -LIMITS.cylinder.min },
  axis: { min: 0, max: 180 },
  vertex_mm: LIMITS.vertexMm,
  k_flat_mm: CURVE_LIMIT,
  k_flat_axis: { min: 0, max: 180 },
  k_steep_mm: CURVE_LIMIT,
} as const;
type Figures = Readonly<Partial<Record<keyof typeof FIGURES, number>>>;

function figuresOf(row: Row): Result<Figures, UnreadableLine> {
  const values: Partial<Record<keyof typeof FIGURES, number>> = {};
  for (const [column, limit] of Object.entries(FIGURES) as [keyof typeof FIGURES, { min: number; max: number }][]) {
    const typed = cell(row, column).replace('−', '-').replace(',', '.');
    if (typed === '') continue;
    const value = /^[+-]?\d{1,3}(\.\d{1,3})?$/.test(typed) ? Number(typed) + 0 : NaN;
    if (!(value >= limit.min && value <= limit.max))
      return err({ code: 'lineFigure', data: { line: row.line, column, typed: cell(row, column).slice(0, 40) } });
    values[column] = value;
  }
  return ok(values);
}

function eyeOf(row: Row, figures: Figures, left: LeftAside[]): Result<MeasuredEye, UnreadableLine> {
  const { sphere, cylinder = 0, axis, k_flat_mm: flatMm, k_steep_mm: steepMm, k_flat_axis: flatAxis } = figures;
  const noPower = sphere === undefined ? cylinder !== 0 : cylinder !== 0 && axis === undefined;
  if (noPower || (flatMm === undefined) !== (steepMm === undefined)) return err({ code: 'linePower', data: { line: row.line } });
  const measured = sphere === undefined ? null : toMinusCylinder({ sphere, cylinder, axis: axis ? axis : 180 });
  const power = measured && inQuarters(measured);
  if (power && measured && (power.sphere !== measured.sphere || power.cylinder !== measured.cylinder))
    left.push({ path: `${row.line}.rounded`, value: `${measured.sphere.toFixed(2)} ${measured.cylinder.toFixed(2)} × ${measured.axis}` });
  const curves =
    flatMm !== undefined && steepMm !== undefined
      ? inOrder({ flatMm, steepMm, flatAxis: flatAxis === undefined ? null : flatAxis === 0 ? 180 : flatAxis })
      : null;
  return ok({ power, curves });
}

/** Reads measurements of one person. Columns that mean nothing here are left aside and listed. */
export function readMeasurementCsv(bytes: Uint8Array): Result<MeasuredFile, UnreadableLine> {
  const opened = openCsv(bytes, { columns: MEASUREMENT_COLUMNS, needed: ['eye'], maxLines: MOST_LINES });
  if (!opened.ok) return opened;
  const left: LeftAside[] = opened.value.unknown.map((name) => ({ path: name, value: '' }));
  const parts = new Map<MeasuredHow, { vertexMm: number | null; eyes: Record<Eye, MeasuredEye | null> }>();
  const people = new Set(opened.value.rows.map((row) => `${cell(row, 'wearer')}\n${cell(row, 'birth_date')}`));
  if (people.size > 1) return err({ code: 'measurementPeople', data: {} });
  for (const row of opened.value.rows) {
    const eye = EYES.find((e) => e === cell(row, 'eye').toLowerCase());
    if (!eye) return err({ code: 'lineEye', data: { line: row.line, typed: cell(row, 'eye').slice(0, 40) } });
    const figures = figuresOf(row);
    if (!figures.ok) return figures;
    const said = cell(row, 'how') || (figures.value.sphere === undefined ? 'keratometry' : 'subjectiveRefraction');
    const how = MEASURED_HOW.find((h) => h.toLowerCase() === said.toLowerCase());
    if (!how) return err({ code: 'lineHow', data: { line: row.line, typed: said.slice(0, 40), known: MEASURED_HOW.join(', ') } });
    const read = eyeOf(row, figures.value, left);
    if (!read.ok) return read;
    const part = parts.get(how) ?? { vertexMm: null, eyes: { right: null, left: null } };
    if (part.eyes[eye] !== null) return err({ code: 'lineEyeTwice', data: { line: row.line } });
    if (read.value.power !== null || read.value.curves !== null) part.eyes[eye] = read.value;
    parts.set(how, { ...part, vertexMm: figures.value.vertex_mm ?? part.vertexMm });
  }
  const found = [...parts].map(([how, part]): MeasuredPart => ({ how, ...part })).filter((p) => p.eyes.right !== null || p.eyes.left !== null);
  const [row] = opened.value.rows;
  if (!row || found.length === 0) return err({ code: 'measurementEmpty', data: {} });
  const name = cell(row, 'wearer');
  const born = cell(row, 'birth_date');
  if (born !== '' && !isIsoDate(born)) left.push({ path: 'birth_date', value: born.slice(0, 200) });
  return ok({
    person: name === '' ? null : { name, birthDate: isIsoDate(born) ? born : null, telephone: null },
    measuredAt: cell(row, 'measured_at') || null,
    device: cell(row, 'device') || null,
    parts: found,
    left,
  });
}
