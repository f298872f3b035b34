import { formatRefraction, howFarOut, nearestPowers, parseRefraction, toCornealPlane, type Millimetres, type Refraction } from '@/core';
import type { Family, Found } from './model';

/** Does a search name the power of glasses? Then families are found by what they would do for it at the cornea. */
export function powerSought(search: string): Refraction | null {
  const read = parseRefraction(search);
  return read.ok ? read.value : null;
}

/** A power searched for: as given, and as it is needed at the cornea. */
export const soughtText = (glasses: Refraction, vertexMm: Millimetres): { readonly power: string; readonly need: string } => ({
  power: formatRefraction(glasses),
  need: formatRefraction(toCornealPlane(glasses, vertexMm)),
});

/** Families by what they would give the power of glasses, nearest first. */
export function byPower(families: readonly Family[], glasses: Refraction, vertexMm: Millimetres): readonly Found[] {
  const power = toCornealPlane(glasses, vertexMm);
  return (
    families
      .map((family): Found => {
        const [best] = nearestPowers(power, family.blocks, { limit: 1 });
        return { family, reach: best ?? null, out: howFarOut(power, family.blocks) };
      })
      // A lens for irregular corneas is not chosen by a power of glasses: it stands last.
      .sort(
        (a, b) =>
          Number(a.family.irregular) - Number(b.family.irregular) ||
          (a.reach?.blur ?? Infinity) - (b.reach?.blur ?? Infinity) ||
          a.family.name.localeCompare(b.family.name, 'en'),
      )
  );
}
