import type { Refraction } from '../optics/refraction';
import { toPowerVector } from '../optics/powerVector';
import type { Degrees, Dioptres } from '../units';
import { rangeCount, rangeValue, type LensBlock } from './family';

/** How far a need lies past what a family makes; 0 where it is within. */
export interface Reach {
  readonly sphere: Dioptres;
  readonly cylinder: Dioptres;
  /** Degrees from the nearest axis made, beyond half a step. */
  readonly axis: Degrees;
}

/**
 * How far out of a family's range an eye lies: dioptres of cylinder past the most made, and with the cylinder made
 * nearest to what is asked, dioptres past the last sphere and degrees from the nearest axis.
 * @example howFarOut({sphere: -3, cylinder: -3, axis: 20}, family.blocks).cylinder → 1.25
 * @source ranges as the maker gives them
 */
export function howFarOut(need: Refraction, blocks: readonly LensBlock[]): Reach {
  const cylinders = blocks.flatMap((b) => b.cylinders);
  const most = Math.min(...cylinders);
  const nearest = cylinders.reduce((best, c) => (Math.abs(c - need.cylinder) < Math.abs(best - need.cylinder) ? c : best), most);
  const cylinder = most === 0 ? 0 : Math.max(0, most - need.cylinder);
  const made = blocks.filter((b) => b.cylinders.includes(nearest));
  const target = toPowerVector(need).m - nearest / 2;
  const past = made.map(({ spheres }) => {
    const last = rangeValue(spheres, rangeCount(spheres) - 1);
    const half = spheres.step / 2;
    return target < spheres.from - half ? spheres.from - target : target > last + half ? target - last : 0;
  });
  const off = made.map(({ axes }) => {
    if (nearest === 0) return 0;
    const gaps = Array.from({ length: rangeCount(axes) }, (_, i) => Math.abs(rangeValue(axes, i) - need.axis) % 180).map((d) => Math.min(d, 180 - d));
    const gap = Math.min(...gaps);
    return gap > axes.step / 2 + 1e-9 ? gap : 0;
  });
  return { sphere: Math.min(...past, Infinity), cylinder, axis: Math.min(...off, Infinity) };
}
