import type { CurveDiameter } from '../lens/family';
import type { Millimetres } from '../units';
import type { IrregularKind, SetStartRow } from './setTable';

/** What is known of an irregular cornea when a set is opened. */
export interface IrregularCornea {
  readonly kind: IrregularKind | null;
  /** 1 to 4; null where nobody staged it. */
  readonly stage: number | null;
  /** Corneal diameter, mm; null where it was not measured. */
  readonly hvidMm: Millimetres | null;
}

/** The lens of a set to begin with, and what it was chosen by. */
export type SetStart<C extends CurveDiameter> =
  { readonly curve: C; readonly by: 'table'; readonly row: SetStartRow } | { readonly curve: C; readonly by: 'middle'; readonly row: null };

const isSame = (a: CurveDiameter, b: CurveDiameter): boolean => Math.abs(a.baseCurve - b.baseCurve) < 1e-6 && Math.abs(a.diameter - b.diameter) < 1e-6;
/** Steepest first; of one curve the smaller first. */
const bySteepness = (a: CurveDiameter, b: CurveDiameter): number => a.baseCurve - b.baseCurve || a.diameter - b.diameter;
const fits = (row: SetStartRow, cornea: IrregularCornea): boolean =>
  (row.kind === null || row.kind === cornea.kind) &&
  (row.stageUpTo === null || (cornea.stage !== null && cornea.stage <= row.stageUpTo)) &&
  (row.hvidUpTo === null || (cornea.hvidMm !== null && cornea.hvidMm <= row.hvidUpTo));

/** The lenses of a set in their order, steepest first, each curve once. */
export const setLadder = <C extends CurveDiameter>(curves: readonly C[]): C[] =>
  curves.filter((c, i) => curves.findIndex((o) => isSame(o, c)) === i).sort(bySteepness);

/**
 * The lens of a diagnostic set to begin with: by the set's own table, else its middle lens. Numbers of one set say nothing of another:
 * a curve comes from the set's own table and its own lenses alone.
 * @param curves curves that the set's lenses have
 * @returns null where the set has no lens
 * @example startOfSet([{baseCurve: 8.2, diameter: 14.5}], [], {kind: 'prolate', stage: null, hvidMm: null})?.by → 'middle'
 * @source a set's own start table, else its middle lens: common practice
 */
export function startOfSet<C extends CurveDiameter>(curves: readonly C[], table: readonly SetStartRow[], cornea: IrregularCornea): SetStart<C> | null {
  const ladder = setLadder(curves);
  for (const row of table.filter((r) => fits(r, cornea))) {
    const curve = ladder.find((c) => isSame(c, row.curve));
    if (curve) return { curve, by: 'table', row };
  }
  const middle = ladder[Math.floor((ladder.length - 1) / 2)];
  return middle ? { curve: middle, by: 'middle', row: null } : null;
}

/**
 * The next lens of the same set for one that moves too much (steeper) or too little (flatter), by one step of the set.
 * @returns null where the set ends there: another diameter, or another set
 * @example nextOfSet([{baseCurve: 8.2, diameter: 14.5}, {baseCurve: 8.4, diameter: 14.5}], {baseCurve: 8.4, diameter: 14.5}, 'loose')?.baseCurve → 8.2
 * @source too much movement: steeper, too little: flatter, by the set's step: common practice
 */
export function nextOfSet<C extends CurveDiameter>(curves: readonly C[], tried: CurveDiameter, verdict: 'loose' | 'tight'): C | null {
  const ladder = setLadder(curves);
  const same = ladder.filter((c) => Math.abs(c.diameter - tried.diameter) < 1e-6);
  return verdict === 'loose'
    ? (same.filter((c) => c.baseCurve < tried.baseCurve - 1e-6).at(-1) ?? null)
    : (same.find((c) => c.baseCurve > tried.baseCurve + 1e-6) ?? null);
}

/** How much steeper a lens is ordered whose mark wanders on blinking in up gaze, mm. Common practice. */
export const UP_GAZE_STEEPER: { readonly least: Millimetres; readonly most: Millimetres } = { least: 0.1, most: 0.2 };

/**
 * The curve to order after a lens whose mark wandered on blinking in up gaze: the nearest one that is made 0.1 to 0.2 mm steeper.
 * @param made curves that can be ordered, in finer steps than the set's
 * @returns null where none is made there
 * @example upGazeCurve([{baseCurve: 8.3, diameter: 14.5}, {baseCurve: 8.2, diameter: 14.5}], {baseCurve: 8.4, diameter: 14.5})?.baseCurve → 8.3
 * @source a mark that wanders in up gaze says slightly flat: 0.1 to 0.2 mm steeper: common practice
 */
export function upGazeCurve<C extends CurveDiameter>(made: readonly C[], tried: CurveDiameter): C | null {
  const steeperBy = (c: C): Millimetres => tried.baseCurve - c.baseCurve;
  const { least, most } = UP_GAZE_STEEPER;
  return (
    setLadder(made)
      .filter((c) => Math.abs(c.diameter - tried.diameter) < 1e-6 && steeperBy(c) >= least - 1e-6 && steeperBy(c) <= most + 1e-6)
      .at(-1) ?? null
  );
}

/** What was tried of a set on this eye, and how it fitted. */
export interface SetTried extends CurveDiameter {
  readonly setCode: string;
  readonly fit: 'loose' | 'fits' | 'tight' | null;
}
/** The lens of a set to put on, and why this one. */
export interface SetProposal<L> {
  readonly lens: L;
  readonly why: 'table' | 'middle' | 'steeper' | 'flatter';
  readonly row: SetStartRow | null;
}

/**
 * The lens of one set to put on next: after one that moved too much or too little the next of the same set, else the one it begins with.
 * @param lenses lenses of one set; of several with one curve the first is taken
 * @returns null where nothing is proposed: no lens, the set ends there, or the lens that is on fits
 * @example proposeOfSet('a', [], [], {kind: null, stage: null, hvidMm: null}, null) → null
 * @source see startOfSet, nextOfSet
 */
export function proposeOfSet<L extends CurveDiameter>(
  setCode: string,
  lenses: readonly L[],
  table: readonly SetStartRow[],
  cornea: IrregularCornea,
  tried: SetTried | null,
): SetProposal<L> | null {
  if (tried !== null && tried.setCode === setCode) {
    if (tried.fit !== 'loose' && tried.fit !== 'tight') return null;
    const next = nextOfSet(lenses, tried, tried.fit);
    return next && { lens: next, why: tried.fit === 'loose' ? 'steeper' : 'flatter', row: null };
  }
  const start = startOfSet(lenses, table, cornea);
  return start && { lens: start.curve, why: start.by, row: start.row };
}
