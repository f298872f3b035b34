import { GEOMETRIES, MARK_LAYOUTS, MODALITIES, MULTIFOCAL_DESIGNS, STABILISATIONS } from '@/core';
import type { Problem } from '@/lib/outcome';
import type { CatalogueColumn, Cells } from '@/schema/catalogue';

/** Columns that are chosen from a list; empty where nothing may be said. */
export const CHOICES: Readonly<Partial<Record<CatalogueColumn, readonly string[]>>> = {
  geometry: GEOMETRIES,
  modality: MODALITIES,
  mark_layout: MARK_LAYOUTS,
  stabilisation: ['', ...STABILISATIONS],
  multifocal_design: ['', ...MULTIFOCAL_DESIGNS],
  overnight_approved: ['no', 'yes'],
  reusable_trial: ['no', 'yes'],
  irregular: ['no', 'yes'],
};
/** What is typed of a family or a block, by column. */
export type Typed = Readonly<Partial<Record<CatalogueColumn, string>>>;
/** Those cells of a line that stand under some columns. */
export const only = (cells: Cells, columns: readonly CatalogueColumn[]): Typed =>
  Object.fromEntries(columns.map((c) => [c, cells[c] ?? CHOICES[c]?.[0] ?? '']));

/** Faults that stand at no field of the form: of a block as a whole, or of the family. */
export function faultsElsewhere(problem: Problem | null): Extract<Problem, { kind: 'invalid' }>['fields'] {
  if (problem?.kind !== 'invalid') return [];
  const atCell = (path: readonly string[]): boolean => path[0] === 'lines' && path[2] !== '' && path[2] !== undefined;
  return problem.fields.filter((f) => !atCell(f.path) && f.path[0] !== 'startsOn' && f.path[0] !== 'code');
}
