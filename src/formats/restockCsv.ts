import Papa from 'papaparse';
import { formatRefraction, type LensAdd } from '../core';

/** A trial lens to be ordered, as a line of a file. */
export interface RestockRow {
  readonly supplierName: string | null;
  readonly maker: string;
  readonly familyCode: string;
  readonly familyName: string;
  readonly sphereD: number;
  readonly cylinderD: number;
  readonly axisDeg: number;
  readonly addBand: LensAdd | null;
  readonly baseCurveMm: number | null;
  readonly diameterMm: number | null;
  readonly count: number;
}

/** Columns of the list of trial lenses to be ordered: those of a list of trial lenses, and who sells and makes them. */
export const RESTOCK_COLUMNS = ['supplier', 'maker', 'family', 'name', 'power', 'add', 'base_curve', 'diameter', 'count'] as const;

/** Text that a program of tables would take for a formula; a power such as −3.00 −1.75 x 20 is none. */
const RISKY = /^[=@\t\r]|^[+-](?![\d.+x -]+$)|^'+[=@+-]/;

/** Trial lenses to be ordered as comma separated values, UTF-8 with its mark, so that programs of tables read it. */
export function restockCsv(rows: readonly RestockRow[]): string {
  const lines = rows.map((r): Record<(typeof RESTOCK_COLUMNS)[number], string> => ({
    supplier: r.supplierName ?? '',
    maker: r.maker,
    family: r.familyCode,
    name: r.familyName,
    power: formatRefraction({ sphere: r.sphereD, cylinder: r.cylinderD, axis: r.axisDeg }).replaceAll('−', '-').replaceAll('×', 'x'),
    add: r.addBand ?? '',
    base_curve: r.baseCurveMm === null ? '' : r.baseCurveMm.toFixed(1),
    diameter: r.diameterMm === null ? '' : r.diameterMm.toFixed(1),
    count: String(r.count),
  }));
  return `\uFEFF${Papa.unparse(lines, { columns: [...RESTOCK_COLUMNS], escapeFormulae: RISKY, newline: '\r\n' })}\r\n`;
}
