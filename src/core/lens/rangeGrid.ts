import type { Degrees, Dioptres } from '../units';
import { compareAdds, rangeValues, type LensAdd, type LensBlock, type LensPower } from './family';

/** One cell of what is made: a sphere, a cylinder and an add, with the axes it comes in. */
export interface RangeCell {
  readonly sphere: Dioptres;
  readonly axes: readonly Degrees[];
}
export interface RangeRow {
  readonly cylinder: Dioptres;
  readonly add: LensAdd | null;
  /** By sphere, the most minus first. */
  readonly cells: readonly RangeCell[];
}
export interface RangeGrid {
  /** Every sphere made, the most minus first. */
  readonly spheres: readonly Dioptres[];
  /** Every axis made anywhere in the family: what a whole cell has. */
  readonly axes: readonly Degrees[];
  /** The least cylinder first; within it by add. */
  readonly rows: readonly RangeRow[];
  /** Spheres between which the step changes. */
  readonly stepChanges: readonly Dioptres[];
}

const ascending = (a: number, b: number): number => a - b;

/**
 * What a family makes, as a picture needs it: sphere by cylinder, and the axes of every cell.
 * @param blocks what is made; overlapping blocks make one cell
 * @example rangeGrid(family.blocks).rows[0]?.cylinder → -0.75
 * @source ranges as the maker gives them
 */
export function rangeGrid(blocks: readonly LensBlock[]): RangeGrid {
  const rows = new Map<string, { cylinder: number; add: LensAdd | null; cells: Map<number, Set<number>> }>();
  const spheres = new Set<number>();
  const axes = new Set<number>();
  for (const block of blocks) {
    const made = rangeValues(block.spheres);
    for (const s of made) spheres.add(s);
    for (const cylinder of block.cylinders) {
      const turned = cylinder === 0 ? [] : rangeValues(block.axes);
      for (const a of turned) axes.add(a);
      for (const add of block.adds) {
        const key = `${cylinder}|${add ?? ''}`;
        const row = rows.get(key) ?? { cylinder, add, cells: new Map<number, Set<number>>() };
        rows.set(key, row);
        for (const s of made) {
          const cell = row.cells.get(s) ?? new Set<number>();
          row.cells.set(s, cell);
          for (const a of turned) cell.add(a);
        }
      }
    }
  }
  const along = [...spheres].sort(ascending);
  return {
    spheres: along,
    axes: [...axes].sort(ascending),
    rows: [...rows.values()]
      .sort((a, b) => b.cylinder - a.cylinder || compareAdds(a.add, b.add))
      .map(({ cylinder, add, cells }) => ({
        cylinder,
        add,
        cells: [...cells].sort((a, b) => a[0] - b[0]).map(([sphere, list]) => ({ sphere, axes: [...list].sort(ascending) })),
      })),
    stepChanges: along.filter((s, i) => {
      const [before, after] = [along[i - 1], along[i + 1]];
      return before !== undefined && after !== undefined && Math.abs(s - before - (after - s)) > 1e-6;
    }),
  };
}

/** How much of a whole cell is made, 0 to 1; a cell without a cylinder is whole. @example cellShare({sphere: -3, axes: [10, 20]}, [10, 20, 30, 40]) → 0.5 */
export const cellShare = (cell: RangeCell, axes: readonly Degrees[]): number =>
  axes.length === 0 || cell.axes.length === 0 ? 1 : cell.axes.length / axes.length;

/** The cell a lens stands in, if it is made. */
export const cellOf = (grid: RangeGrid, lens: LensPower, add: LensAdd | null): RangeCell | undefined =>
  grid.rows.find((r) => Math.abs(r.cylinder - lens.cylinder) < 1e-6 && r.add === add)?.cells.find((c) => Math.abs(c.sphere - lens.sphere) < 1e-6);
