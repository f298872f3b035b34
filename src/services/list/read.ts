import 'server-only';
import { lensOfCells, type LensSpec } from '../../core';
import { findFamilyInForce, type FamilyWithBlocks } from '../../db/family';
import { openCsv, type CsvRow } from '../../formats/csv';
import { err, invalid, type FieldProblem, type ProblemData, type Result } from '../../lib/outcome';
import { LIST_MAX_LINES, type ListLens } from '../../schema/list';
import type { Context } from '../define';

/** Something about a line. `stop`: the line stays out; `watch`: it stays out too, since it is here already. */
export interface ListFault {
  readonly line: number;
  readonly gravity: 'stop' | 'watch';
  readonly column: string;
  readonly code: string;
  readonly data: ProblemData;
}
/** What a list came to. */
export interface ListRead {
  readonly lines: number;
  /** Lines that are, or were, taken in. */
  readonly good: number;
  readonly taken: boolean;
  readonly faults: readonly ListFault[];
  /** More faults than are shown. */
  readonly moreFaults: number;
  /** Columns that mean nothing here. */
  readonly unknown: readonly string[];
}
const SHOWN_FAULTS = 200;

export function listRead(
  file: { readonly lines: number; readonly unknown: readonly string[] },
  good: number,
  taken: boolean,
  faults: readonly ListFault[],
): ListRead {
  const sorted = [...faults].sort((a, b) => a.line - b.line);
  return {
    lines: file.lines,
    good,
    taken,
    unknown: file.unknown,
    faults: sorted.slice(0, SHOWN_FAULTS),
    moreFaults: Math.max(0, sorted.length - SHOWN_FAULTS),
  };
}

export const faultsOf = (line: number, fields: readonly FieldProblem[]): ListFault[] =>
  fields.map((f) => ({ line, gravity: 'stop', column: f.path.join('.'), code: f.code, data: f.data ?? {} }));

/** Opens a list; what is wrong with the whole file is said at the file. */
export function openList<Column extends string>(
  bytes: Uint8Array,
  columns: readonly Column[],
  needed: readonly Column[],
): Result<{ readonly rows: readonly CsvRow<Column>[]; readonly unknown: readonly string[]; readonly lines: number }> {
  const open = openCsv(bytes, { columns, needed, maxLines: LIST_MAX_LINES });
  if (!open.ok) return invalid('file', open.error.code, open.error.data);
  return { ok: true, value: { rows: open.value.rows, unknown: open.value.unknown, lines: open.value.rows.length } };
}

/** Finds the lenses that lists mean: each family is read once. */
export class ListLenses {
  private readonly families = new Map<string, FamilyWithBlocks | null>();
  constructor(private readonly context: Context) {}

  private async family(code: string): Promise<FamilyWithBlocks | null> {
    const known = this.families.get(code);
    if (known !== undefined) return known;
    const { tx, caller, today } = this.context;
    const family = await findFamilyInForce(tx, caller.practiceId, code, today);
    this.families.set(code, family);
    return family;
  }

  /** @param prefix of its columns, for the fault */
  async specOf({ family: code, power, add, base_curve: baseCurve, diameter }: ListLens, prefix = ''): Promise<Result<LensSpec, FieldProblem>> {
    const family = await this.family(code);
    if (!family) return err({ path: [`${prefix}family`], code: 'listFamilyUnknown', data: { code: code.slice(0, 60) } });
    const lens = lensOfCells(family, { power: power.power, add, baseCurve, diameter });
    if (!lens.ok) return err({ path: [`${prefix}${lens.error.column}`], code: lens.error.code, data: lens.error.data });
    const { sphere, cylinder, axis, add: addBand, baseCurve: baseCurveMm, diameter: diameterMm } = lens.value;
    return { ok: true, value: { familyVersionId: family.id, sphereD: sphere, cylinderD: cylinder, axisDeg: axis, addBand, baseCurveMm, diameterMm } };
  }
}
