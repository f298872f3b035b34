import type { Refraction } from '../optics/refraction';
import { fromPowerVector, subtractVectors, toPowerVector } from '../optics/powerVector';
import type { Degrees, Dioptres, Millimetres } from '../units';
import { rangeCount, rangeValue, type LensBlock, type LensFamily, type LensPower, type LensVariant } from './family';
import { nearestPowers } from './nearestPowers';
import { blurClass, type Ranked } from './rankOrder';

export interface NearestOptions {
  /** How many powers at most; default 5. */
  readonly limit?: number;
  /** Axis of the last lens worn (degrees): breaks ties. */
  readonly lastAxis?: Degrees;
  /** Never more cylinder than the need has; default false. */
  readonly cylinderCap?: boolean;
  /** Only powers made in this base curve (mm). */
  readonly baseCurve?: Millimetres;
  /** Only powers made in this diameter (mm). */
  readonly diameter?: Millimetres;
}

/** One makeable power with what it leaves uncorrected. */
export interface NearestLens extends Ranked {
  readonly power: LensPower;
  /** What the eye still asks for: need − lens, minus cylinder. Its *cylinder* is not its blur strength. */
  readonly residual: Refraction;
  readonly blur: Dioptres;
  /** Base curves, diameters and adds this power is made in. */
  readonly variants: readonly LensVariant[];
  /** True when the row before leaves the same blur (within 0.005 D): the twin that ties. */
  readonly tiesWithPrevious: boolean;
}

function variantsOf(power: LensPower, blocks: readonly LensBlock[]): LensVariant[] {
  const seen = new Map<string, LensVariant>();
  for (const block of blocks) {
    const sphereIndex = Math.round((power.sphere - block.spheres.from) / block.spheres.step);
    const sphereMade = sphereIndex >= 0 && sphereIndex < rangeCount(block.spheres) && Math.abs(rangeValue(block.spheres, sphereIndex) - power.sphere) < 1e-6;
    const axisIndex = Math.round((power.axis - block.axes.from) / block.axes.step);
    const axisMade =
      power.cylinder === 0 || (axisIndex >= 0 && axisIndex < rangeCount(block.axes) && Math.abs(rangeValue(block.axes, axisIndex) - power.axis) < 1e-6);
    if (!sphereMade || !axisMade || !block.cylinders.includes(power.cylinder)) continue;
    for (const { baseCurve, diameter } of block.curves) {
      for (const add of block.adds) seen.set(`${baseCurve}|${diameter}|${add ?? ''}`, { baseCurve, diameter, add });
    }
  }
  return [...seen.values()];
}

/**
 * The makeable powers of a family that leave an eye the least blur, best first. Exact: the same list that
 * trying every lens would give, without trying every lens.
 * @param need power the eye asks for at the cornea (D, TABO degrees, minus cylinder), unrounded
 * @param family its blocks say what is made
 * @param options see NearestOptions; curves and diameters filter, and otherwise hang on the row
 * @returns up to `limit` powers in the order of `compareRanked`; empty when nothing fits the filters. No errors.
 * @example nearestLenses({sphere: -3.13, cylinder: -1.59, axis: 20}, family)[0].power → {sphere: -3, cylinder: -1.75, axis: 20}
 * @source least blur strength, Thibos et al. 1997; tie rules in `compareRanked`
 */
export function nearestLenses(need: Refraction, family: LensFamily, options: NearestOptions = {}): NearestLens[] {
  const { limit = 5, lastAxis, cylinderCap = false, baseCurve, diameter } = options;
  const blocks = family.blocks
    .map((block) => ({
      ...block,
      curves: block.curves.filter(
        (c) => (baseCurve === undefined || Math.abs(c.baseCurve - baseCurve) < 1e-6) && (diameter === undefined || Math.abs(c.diameter - diameter) < 1e-6),
      ),
    }))
    .filter((block) => block.curves.length > 0);
  const vector = toPowerVector(need);
  return nearestPowers(need, blocks, { limit, lastAxis, cylinderCap }).map((row, i, rows) => {
    const before = rows[i - 1];
    return {
      ...row,
      residual: fromPowerVector(subtractVectors(vector, toPowerVector(row.power))),
      variants: variantsOf(row.power, blocks),
      tiesWithPrevious: before !== undefined && blurClass(before.blur) === blurClass(row.blur),
    };
  });
}
