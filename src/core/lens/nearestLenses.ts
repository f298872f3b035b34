import type { Refraction } from '../optics/refraction';
import { fromPowerVector, subtractVectors, toPowerVector, blurStrength, type PowerVector } from '../optics/powerVector';
import type { Degrees, Dioptres, Millimetres } from '../units';
import { rangeCount, rangeValue, type LensBlock, type LensFamily, type LensPower, type LensVariant, type StepRange } from './family';
import { blurClass, compareRanked, type Ranked } from './rankOrder';

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

/** Indexes of a range, the one nearest `target` first, then outwards; ties give the higher value first. */
function* outwards(range: StepRange, target: number): Generator<number> {
  const count = rangeCount(range);
  const exact = (target - range.from) / range.step;
  let up = Math.min(count, Math.max(0, Math.ceil(exact - 1e-9)));
  let down = up - 1;
  while (up < count || down >= 0) {
    const upGap = up < count ? Math.abs(up - exact) : Infinity;
    const downGap = down >= 0 ? Math.abs(exact - down) : Infinity;
    if (upGap <= downGap) yield up++;
    else yield down--;
  }
}

/** Axes of a block by growing angle from the need's axis: the leftover astigmatism only grows on the way. */
function axesByAngle(range: StepRange, axis: Degrees): number[] {
  const values = Array.from({ length: rangeCount(range) }, (_, i) => rangeValue(range, i));
  const gap = (value: number): number => {
    const d = Math.abs(value - axis) % 180;
    return Math.min(d, 180 - d);
  };
  return values.sort((a, b) => gap(a) - gap(b) || a - b);
}

/** The best `limit` so far, sorted; a small array beats a heap at these sizes. */
class Best {
  private readonly rows: Ranked[] = [];
  private readonly keys = new Set<string>();
  constructor(
    private readonly limit: number,
    private readonly lastAxis: Degrees | undefined,
  ) {}

  /** True when nothing with at least this blur could still enter. */
  closedTo(leastBlur: Dioptres): boolean {
    const last = this.rows[this.limit - 1];
    return last !== undefined && blurClass(leastBlur) > blurClass(last.blur);
  }

  offer(row: Ranked): void {
    const key = `${row.power.sphere}|${row.power.cylinder}|${row.power.axis}`;
    if (this.keys.has(key)) return;
    const last = this.rows[this.limit - 1];
    if (last !== undefined && compareRanked(row, last, this.lastAxis) >= 0) return;
    let at = this.rows.length;
    while (at > 0 && compareRanked(row, this.rows[at - 1]!, this.lastAxis) < 0) at--;
    this.rows.splice(at, 0, row);
    this.keys.add(key);
    const dropped = this.rows.length > this.limit ? this.rows.pop() : undefined;
    if (dropped) this.keys.delete(`${dropped.power.sphere}|${dropped.power.cylinder}|${dropped.power.axis}`);
  }

  list(): readonly Ranked[] {
    return this.rows;
  }
}

function searchBlock(block: LensBlock, need: Refraction, vector: PowerVector, cap: boolean, best: Best): void {
  for (const cylinder of block.cylinders) {
    if (cap && cylinder < need.cylinder - 1e-9) continue;
    const axes = cylinder === 0 ? [180] : axesByAngle(block.axes, need.axis);
    for (const axis of axes) {
      const astigmatism = toPowerVector({ sphere: 0, cylinder, axis });
      const leftJ = Math.hypot(vector.j0 - astigmatism.j0, vector.j45 - astigmatism.j45);
      if (best.closedTo(leftJ)) break;
      for (const index of outwards(block.spheres, vector.m - cylinder / 2)) {
        const sphere = rangeValue(block.spheres, index);
        const power: LensPower = { sphere, cylinder, axis };
        const blur = blurStrength(subtractVectors(vector, toPowerVector(power)));
        if (best.closedTo(blur)) break;
        best.offer({ power, blur });
      }
    }
  }
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
  const best = new Best(Math.max(0, limit), lastAxis);
  if (limit > 0) for (const block of blocks) searchBlock(block, need, vector, cylinderCap, best);
  return best.list().map((row, i, rows) => {
    const before = rows[i - 1];
    return {
      ...row,
      residual: fromPowerVector(subtractVectors(vector, toPowerVector(row.power))),
      variants: variantsOf(row.power, blocks),
      tiesWithPrevious: before !== undefined && blurClass(before.blur) === blurClass(row.blur),
    };
  });
}
