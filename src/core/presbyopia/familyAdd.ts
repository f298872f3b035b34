import type { MultifocalDesign } from '../lens/catalogueFamily';
import type { LensAdd } from '../lens/family';
import type { Dioptres } from '../units';

/** One addition that a family makes, as its maker says it: what it is for and what it is. */
export interface FamilyAdd {
  /** As it stands on the box. */
  readonly add: LensAdd;
  /** It is for measured additions up to this one, D. */
  readonly upTo: Dioptres;
  /** Near power beyond the far power, D: nominal, for the forecast. */
  readonly power: Dioptres;
  /** Where this one differs from the family's design. */
  readonly design: MultifocalDesign | null;
}

/** What the usual bands are for where a family says nothing else. Source: common practice; the powers are our own. */
export const USUAL_ADDS: readonly FamilyAdd[] = [
  { add: 'low', upTo: 1.25, power: 1, design: null },
  { add: 'medium', upTo: 2, power: 1.75, design: null },
  { add: 'high', upTo: 4, power: 2.25, design: null },
];

/** A family as far as its additions go. */
export interface WithAdds {
  readonly multifocalDesign?: MultifocalDesign | null;
  /** What its maker says of its additions; without it the usual bands. */
  readonly addTable?: readonly FamilyAdd[];
  readonly blocks: readonly { readonly adds: readonly (LensAdd | null)[] }[];
}

/** The additions that a family makes, weakest first. @example addsOf({blocks: [{adds: ['low', 'high']}]}).length → 2 */
export function addsOf(family: WithAdds): readonly FamilyAdd[] {
  const made = new Set(family.blocks.flatMap((b) => b.adds));
  const said = family.addTable && family.addTable.length > 0 ? family.addTable : USUAL_ADDS;
  return said.filter((a) => made.has(a.add)).sort((a, b) => a.power - b.power || a.upTo - b.upTo);
}

/** What a family makes under a name; null where it makes nothing of that name. */
export const addNamed = (family: WithAdds, add: LensAdd | null): FamilyAdd | null => addsOf(family).find((a) => a.add === add) ?? null;

/** The design of an addition of a family. */
export const designOf = (family: WithAdds, add: FamilyAdd): MultifocalDesign | null => add.design ?? family.multifocalDesign ?? null;

/**
 * The addition of a family for a measured one: the weakest that is for it, in the design that is asked for. Null where the family
 * makes none that strong.
 * @param design of an eye where the family makes more than one
 * @example addFor({blocks: [{adds: ['low', 'high']}]}, 1.5)?.add → 'high'
 * @source the maker's ranges; common practice where it gives none
 */
export function addFor(family: WithAdds, measured: Dioptres, design?: MultifocalDesign): FamilyAdd | null {
  const all = addsOf(family);
  const ofDesign = design === undefined ? all : all.filter((a) => designOf(family, a) === design);
  const among = ofDesign.length > 0 ? ofDesign : all;
  return among.find((a) => measured <= a.upTo + 0.125 - 1e-9) ?? null;
}
