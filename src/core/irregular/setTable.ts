import type { CurveDiameter } from '../lens/family';
import type { Millimetres } from '../units';

/** Kind of an irregular cornea: prolate is steepest near its centre (keratoconus), oblate flattest there (after surgery, a graft). */
export const IRREGULAR_KINDS = ['prolate', 'oblate'] as const;
export type IrregularKind = (typeof IRREGULAR_KINDS)[number];
/** Stages of an ectasia, 1 the mildest. */
export const STAGES = [1, 2, 3, 4] as const;

/** One line of a diagnostic set's own start table: for which cornea, and the lens of this set that it begins with. */
export interface SetStartRow {
  /** Null: any irregular cornea. */
  readonly kind: IrregularKind | null;
  /** Up to this stage, 1 to 4; null: whatever it is, or not known. */
  readonly stageUpTo: number | null;
  /** Up to this corneal diameter (HVID), mm; null: whatever it is, or not known. */
  readonly hvidUpTo: Millimetres | null;
  readonly curve: CurveDiameter;
}

const PART = /^(prolate|oblate|any)(?: stage ?<=([1-4]))?(?: hvid ?<=(\d{1,2}(?:\.\d)?))? (\d{1,2}(?:\.\d{1,2})?)\/(\d{1,2}(?:\.\d{1,2})?)$/i;

/**
 * A set's start table as one cell: `prolate stage<=2 hvid<=11.8 8.2/14.5 | oblate 9.0/14.5`; the first line that fits is taken.
 * @returns null where it cannot be read
 * @example readSetTable('prolate stage<=2 8.2/14.5 | any 8.6/14.5')?.length → 2
 */
export function readSetTable(text: string): readonly SetStartRow[] | null {
  const rows = text
    .split(/\s*\|\s*/)
    .filter((part) => part !== '')
    .map((part): SetStartRow | null => {
      const [, kind, stage, hvid, baseCurve, diameter] = PART.exec(part) ?? [];
      if (kind === undefined) return null;
      const named = IRREGULAR_KINDS.find((k) => k === kind.toLowerCase()) ?? null;
      const number = (of: string | undefined): number | null => (of === undefined ? null : Number(of));
      return { kind: named, stageUpTo: number(stage), hvidUpTo: number(hvid), curve: { baseCurve: Number(baseCurve), diameter: Number(diameter) } };
    });
  return rows.every((r) => r !== null) ? rows : null;
}
export const writeSetTable = (table: readonly SetStartRow[]): string =>
  table
    .map(({ kind, stageUpTo, hvidUpTo, curve }) =>
      [
        kind ?? 'any',
        stageUpTo === null ? null : `stage<=${stageUpTo}`,
        hvidUpTo === null ? null : `hvid<=${hvidUpTo.toFixed(1)}`,
        `${curve.baseCurve.toFixed(2)}/${curve.diameter.toFixed(2)}`,
      ]
        .filter((part) => part !== null)
        .join(' '),
    )
    .join(' | ');
