import { isMade, rangeCount, rangeValue, type LensBlock, type LensFamily, type LensPower, type LensVariant } from './family';

/** Spheres are told apart by the eighth of a dioptre, axes by the degree. */
const SPHERES = 512;
const AXES = 181;
const sphereAt = (sphere: number): number => Math.round(sphere * 8) + SPHERES / 2;

/**
 * How many different lenses some blocks make, whatever overlaps: powers times curves times adds.
 * @example countLenses([{spheres: {from: -1, to: 0, step: 0.25}, cylinders: [0], axes: {from: 180, to: 180, step: 10}, adds: [null], curves: [{baseCurve: 8.6, diameter: 14.2}]}]) → 5
 */
export function countLenses(blocks: readonly LensBlock[]): number {
  // Block by block for each cylinder, curve and add: the spheres and axes made are then one small table.
  const of = new Map<string, { readonly turned: boolean; readonly blocks: LensBlock[] }>();
  for (const block of blocks)
    for (const cylinder of block.cylinders)
      for (const { baseCurve, diameter } of block.curves)
        for (const add of block.adds) {
          const key = `${cylinder}|${add ?? ''}|${baseCurve}|${diameter}`;
          const group = of.get(key) ?? { turned: cylinder !== 0, blocks: [] };
          group.blocks.push(block);
          of.set(key, group);
        }
  let count = 0;
  for (const group of of.values()) {
    const made = new Uint8Array(SPHERES * AXES);
    for (const { spheres, axes } of group.blocks)
      for (let s = 0; s < rangeCount(spheres); s++) {
        const row = sphereAt(rangeValue(spheres, s)) * AXES;
        const turns = group.turned ? rangeCount(axes) : 1;
        for (let a = 0; a < turns; a++) {
          const at = row + (group.turned ? rangeValue(axes, a) : 180);
          if (made[at] === 0) count++;
          made[at] = 1;
        }
      }
  }
  return count;
}

/** Lenses at the ends and in the middle of every block: a sample that finds a block that was merged away. */
function sampleOf(block: LensBlock): (LensPower & LensVariant)[] {
  const spread = (count: number): number[] => [...new Set([0, Math.floor(count / 2), count - 1])];
  const [curve] = block.curves;
  const [add = null] = block.adds;
  if (!curve) return [];
  return block.cylinders.flatMap((cylinder) =>
    spread(rangeCount(block.spheres)).flatMap((s) =>
      (cylinder === 0 ? [180] : spread(rangeCount(block.axes)).map((a) => rangeValue(block.axes, a))).map((axis) => ({
        sphere: rangeValue(block.spheres, s),
        cylinder,
        axis,
        add,
        ...curve,
      })),
    ),
  );
}

/**
 * Do two sets of blocks make the same lenses? Compared by their number, and by a sample of every block.
 * @param file as listed
 * @param library as kept
 * @returns both numbers where they do not; null where they do
 * @example lensesLost(family.blocks, family) → null
 */
export function lensesLost(file: readonly LensBlock[], library: LensFamily): { readonly file: number; readonly library: number } | null {
  const counts = { file: countLenses(file), library: countLenses(library.blocks) };
  if (counts.file !== counts.library) return counts;
  return file.flatMap(sampleOf).every((lens) => isMade(lens, library)) ? null : counts;
}
