import { sphericalEquivalent, type Refraction } from '../optics/refraction';
import type { Dioptres, Eye } from '../units';
import { addFor, type WithAdds } from './familyAdd';
import type { StartLens, StartRow } from './familyTables';

/** A family with its start table. */
export interface WithStart extends WithAdds {
  readonly startTable?: readonly StartRow[];
}
/** Of whom a starting pair is asked. */
export interface StartFor {
  readonly age: number;
  /** Near addition, D. */
  readonly add: Dioptres;
  /** Null: not known; the right eye is then taken for far, and said so. */
  readonly dominant: Eye | null;
  /** Mean sphere at the cornea of each eye, D. */
  readonly need: Readonly<Record<Eye, Dioptres>>;
}
export interface StartPair {
  readonly lenses: Readonly<Record<Eye, StartLens>>;
  /** The line of the family's own table; null: it has none, so both eyes get the addition for the measured one. */
  readonly row: StartRow | null;
}

/** Does a line of the table speak of somebody? */
function speaksOf(row: StartRow, who: StartFor): boolean {
  if ((row.by === 'add' ? who.add : who.age) > row.upTo + 1e-9) return false;
  if (row.refraction === null) return true;
  const mean = (who.need.right + who.need.left) / 2;
  return (row.refraction === 'myope') === mean < 0;
}

/**
 * The pair that a family's own table begins with: its first line that speaks of the wearer. Without a table both eyes get the
 * addition that is for the measured one. Null where the family makes none that strong.
 * @example startPair({blocks: [{adds: ['low', 'high']}]}, {age: 52, add: 1.25, dominant: 'left', need: {right: -2, left: -2}})?.lenses.right.add → 'low'
 * @source the maker's table; without one common practice
 */
export function startPair(family: WithStart, who: StartFor): StartPair | null {
  const row = (family.startTable ?? []).find((r) => speaksOf(r, who));
  if (row) {
    const far = who.dominant ?? 'right';
    return { row, lenses: far === 'right' ? { right: row.dominant, left: row.other } : { right: row.other, left: row.dominant } };
  }
  const add = addFor(family, who.add)?.add;
  return add === undefined ? null : { row: null, lenses: { right: { add, plus: 0 }, left: { add, plus: 0 } } };
}

/** Of whom a list of lenses is made. */
export interface StartWish {
  readonly age: number;
  readonly adds: Readonly<Record<Eye, Dioptres | null>>;
  readonly dominant?: Eye | null;
}
/**
 * The lens of a family's starting pair for one eye; null where the eye has no addition, or the family makes none that strong: then
 * the list looks for the measured addition.
 * @param needs powers at the cornea
 */
export function startLensOf(family: WithStart, eye: Eye, wish: StartWish, needs: Readonly<Record<Eye, Refraction | null>>): StartLens | Dioptres | null {
  const add = wish.adds[eye];
  if (add === null) return null;
  const mean = (of: Eye): Dioptres => (needs[of] ? sphericalEquivalent(needs[of]) : needs[eye] ? sphericalEquivalent(needs[eye]) : 0);
  const start = startPair(family, { age: wish.age, add, dominant: wish.dominant ?? null, need: { right: mean('right'), left: mean('left') } });
  return start?.lenses[eye] ?? add;
}
