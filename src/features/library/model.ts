import { isOrderable, rangeCount, rangeValue, type howFarOut, type LensBlock, type LensPower } from '@/core';
import type { LibraryPage } from '@/services/family/queries';

/** View logic of the lens library, without React. */
export type Family = LibraryPage['families'][number];

export interface Found {
  readonly family: Family;
  /** What the family would give the power searched for, and what that leaves; null while words are searched for. */
  readonly reach: { readonly power: LensPower; readonly blur: number } | null;
  readonly out: ReturnType<typeof howFarOut> | null;
}

const plain = (text: string): string => text.toLocaleLowerCase('en').normalize('NFKD').replace(/\p{M}/gu, '');

/** Families by words in any order. */
export function byWords(families: readonly Family[], search: string): readonly Found[] {
  const words = plain(search)
    .split(/\s+/)
    .filter((w) => w !== '');
  return families
    .filter((f) => {
      const text = plain(`${f.name} ${f.maker} ${f.code} ${f.material} ${f.geometry} ${f.modality}`);
      return words.every((w) => text.includes(w));
    })
    .map((family) => ({ family, reach: null, out: null }));
}

export interface Extent {
  readonly from: number;
  readonly to: number;
  /** The strongest cylinder; 0 for none. */
  readonly cylinder: number;
  readonly curves: readonly string[];
}
/** What a family makes, in a line. */
export function extentOf(blocks: readonly LensBlock[]): Extent | null {
  if (blocks.length === 0) return null;
  return {
    from: Math.min(...blocks.map((b) => b.spheres.from)),
    to: Math.max(...blocks.map((b) => rangeValue(b.spheres, rangeCount(b.spheres) - 1))),
    cylinder: Math.min(...blocks.flatMap((b) => b.cylinders)),
    curves: [...new Set(blocks.flatMap((b) => b.curves.map((c) => `${c.baseCurve.toFixed(1)} / ${c.diameter.toFixed(1)}`)))],
  };
}

/** Where a family stands in its life: to be ordered, ending, ended. */
export function lifeOf(family: Pick<Family, 'lastOrderOn'>, today: string): 'open' | 'ending' | 'ended' {
  if (family.lastOrderOn === null) return 'open';
  return isOrderable(family, today) ? 'ending' : 'ended';
}
