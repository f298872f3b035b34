import type { Refraction } from '../optics/refraction';
import { toPowerVector, type PowerVector } from '../optics/powerVector';
import type { Degrees, Dioptres } from '../units';
import { rangeCount, rangeValue, type LensBlock } from './family';
import { BLUR_TIE, compareNumbers, type Ranked } from './rankOrder';

/** Cosine and sine of twice the axis for whole degrees, exactly as `toPowerVector` has them. */
const COS = new Float64Array(181);
const SIN = new Float64Array(181);
for (let axis = 1; axis <= 180; axis++) {
  // A cylinder of −2 D makes a vector of length 1.
  const unit = toPowerVector({ sphere: 0, cylinder: -2, axis });
  COS[axis] = unit.j0;
  SIN[axis] = unit.j45;
}

/** The best so far as columns of numbers: nothing is made while the search runs. */
class Best {
  private readonly blur: number[] = [];
  private readonly sphere: number[] = [];
  private readonly cylinder: number[] = [];
  private readonly axis: number[] = [];
  private count = 0;
  /** Square of the blur from which nothing can enter any more. */
  closedSquare = Infinity;

  constructor(
    private readonly limit: number,
    private readonly lastAxis: Degrees | undefined,
  ) {
    for (let i = 0; i < limit; i++) {
      this.blur.push(0);
      this.sphere.push(0);
      this.cylinder.push(0);
      this.axis.push(0);
    }
  }

  /** Empty again, for the next family. */
  clear(): void {
    this.count = 0;
    this.closedSquare = Infinity;
  }

  private standsBefore(blur: number, sphere: number, cylinder: number, axis: number, row: number): boolean {
    return compareNumbers(blur, sphere, cylinder, axis, this.blur[row]!, this.sphere[row]!, this.cylinder[row]!, this.axis[row]!, this.lastAxis) < 0;
  }

  offer(blur: number, sphere: number, cylinder: number, axis: number): void {
    const full = this.count === this.limit;
    if (full && !this.standsBefore(blur, sphere, cylinder, axis, this.limit - 1)) return;
    for (let i = 0; i < this.count; i++) if (this.sphere[i] === sphere && this.cylinder[i] === cylinder && this.axis[i] === axis) return;
    let at = full ? this.limit - 1 : this.count++;
    for (; at > 0 && this.standsBefore(blur, sphere, cylinder, axis, at - 1); at--) {
      this.blur[at] = this.blur[at - 1]!;
      this.sphere[at] = this.sphere[at - 1]!;
      this.cylinder[at] = this.cylinder[at - 1]!;
      this.axis[at] = this.axis[at - 1]!;
    }
    this.blur[at] = blur;
    this.sphere[at] = sphere;
    this.cylinder[at] = cylinder;
    this.axis[at] = axis;
    // Equal classes may still enter by their other merits; the next class cannot.
    if (this.count < this.limit) return;
    const closed = (Math.round(this.blur[this.limit - 1]! / BLUR_TIE) + 0.5) * BLUR_TIE + 1e-12;
    this.closedSquare = closed * closed;
  }

  list(): Ranked[] {
    const rows: Ranked[] = [];
    for (let i = 0; i < this.count; i++)
      rows.push({ power: { sphere: this.sphere[i]!, cylinder: this.cylinder[i]!, axis: this.axis[i]! }, blur: this.blur[i]! });
    return rows;
  }
}

/** Tries the spheres of one cylinder and axis, the nearest first, outwards until none can enter. */
function searchSpheres(block: LensBlock, m: number, cylinder: number, axis: number, dj0: number, dj45: number, best: Best): void {
  const { spheres } = block;
  const count = rangeCount(spheres);
  const exact = (m - cylinder / 2 - spheres.from) / spheres.step;
  let up = Math.min(count, Math.max(0, Math.ceil(exact - 1e-9)));
  let down = up - 1;
  while (up < count || down >= 0) {
    const takesUp = up < count && (down < 0 || up - exact <= exact - down);
    const sphere = rangeValue(spheres, takesUp ? up++ : down--);
    const dm = m - (sphere + cylinder / 2);
    const square = dm * dm + dj0 * dj0 + dj45 * dj45;
    if (square >= best.closedSquare) return;
    best.offer(Math.sqrt(square), sphere, cylinder, axis);
  }
}

/** Least distance between a mean power and what the spheres of a block make with a cylinder, squared. */
function sphereGap(block: LensBlock, m: number, cylinder: number): number {
  const { spheres } = block;
  const exact = (m - cylinder / 2 - spheres.from) / spheres.step;
  const nearest = Math.min(rangeCount(spheres) - 1, Math.max(0, Math.round(exact)));
  const gap = (exact - nearest) * spheres.step;
  return gap * gap;
}

/** An angle walked one way, 0 to 180. An axis that is the need's but for rounding lies at 0, not half a circle away. */
const around = (angle: number): number => (angle < -1e-9 ? angle + 180 : Math.max(0, angle));

/** Tries the axes of one cylinder by growing angle from the need's: the leftover astigmatism only grows on the way. */
function searchCylinder(block: LensBlock, vector: PowerVector, needAxis: number, cylinder: number, best: Best): void {
  const half = -cylinder / 2;
  if (half === 0) {
    searchSpheres(block, vector.m, 0, 180, vector.j0, vector.j45, best);
    return;
  }
  const { axes } = block;
  const count = rangeCount(axes);
  // A hair less than the least, so that rounding never shuts out an equal.
  const gap = sphereGap(block, vector.m, cylinder) * (1 - 1e-9) - 1e-12;
  // Two walkers around the half circle, from the first axis at or past the need's.
  let forward = Math.ceil((needAxis - axes.from) / axes.step - 1e-9);
  if (forward < 0 || forward >= count) forward = 0;
  let backward = forward === 0 ? count - 1 : forward - 1;
  for (let left = count; left > 0; left--) {
    const ahead = rangeValue(axes, forward);
    const behind = rangeValue(axes, backward);
    const aheadBy = around(ahead - needAxis);
    const behindBy = around(needAxis - behind);
    let axis: number;
    if (aheadBy <= behindBy) {
      axis = ahead;
      forward = forward + 1 === count ? 0 : forward + 1;
    } else {
      axis = behind;
      backward = backward === 0 ? count - 1 : backward - 1;
    }
    const dj0 = vector.j0 - half * COS[axis]!;
    const dj45 = vector.j45 - half * SIN[axis]!;
    if (gap + dj0 * dj0 + dj45 * dj45 >= best.closedSquare) return;
    searchSpheres(block, vector.m, cylinder, axis, dj0, dj45, best);
  }
}

/** Square of the least blur any lens of a block could leave: its nearest mean power and its nearest cylinder, whatever the axis. */
function leastSquare(block: LensBlock, m: number, j: number): number {
  let least = Infinity;
  const { cylinders, spheres } = block;
  for (let i = 0; i < cylinders.length; i++) {
    const half = -cylinders[i]! / 2;
    const sphere = m + half;
    const past = sphere < spheres.from ? spheres.from - sphere : sphere > spheres.to ? sphere - spheres.to : 0;
    const dj = j - half;
    const square = past * past + dj * dj;
    if (square < least) least = square;
  }
  return least;
}

function tryCylinder(block: LensBlock, vector: PowerVector, need: Refraction, j: number, cylinder: number, cap: boolean, best: Best): void {
  if (cap && cylinder < need.cylinder - 1e-9) return;
  const dj = j + cylinder / 2;
  if (dj * dj - 1e-12 >= best.closedSquare) return;
  searchCylinder(block, vector, need.axis, cylinder, best);
}

function searchBlock(block: LensBlock, vector: PowerVector, need: Refraction, j: number, cap: boolean, best: Best): void {
  const { cylinders } = block;
  // The likeliest cylinder first: after it most others cannot enter.
  let first = 0;
  for (let i = 1; i < cylinders.length; i++) if (Math.abs(j + cylinders[i]! / 2) < Math.abs(j + cylinders[first]! / 2)) first = i;
  tryCylinder(block, vector, need, j, cylinders[first]!, cap, best);
  for (let i = 0; i < cylinders.length; i++) if (i !== first) tryCylinder(block, vector, need, j, cylinders[i]!, cap, best);
}

export interface NearestPowersOptions {
  /** How many powers at most. */
  readonly limit: number;
  /** Axis of the last lens worn (degrees): breaks ties. */
  readonly lastAxis?: Degrees | undefined;
  /** Never more cylinder than the need has. */
  readonly cylinderCap?: boolean;
}

/** Makes a search for one need, to be asked family by family: what depends on the need alone is worked out once. */
function searchFor(need: Refraction, options: NearestPowersOptions): (blocks: readonly LensBlock[]) => Ranked[] {
  const { limit, lastAxis, cylinderCap = false } = options;
  const vector = toPowerVector(need);
  const { m } = vector;
  const j: Dioptres = Math.sqrt(vector.j0 * vector.j0 + vector.j45 * vector.j45);
  const best = new Best(Math.max(0, limit), lastAxis);
  const bounds: number[] = [];
  return (blocks) => {
    if (limit <= 0 || blocks.length === 0) return [];
    best.clear();
    let first = 0;
    for (let i = 0; i < blocks.length; i++) {
      bounds[i] = leastSquare(blocks[i]!, m, j);
      if (bounds[i]! < bounds[first]!) first = i;
    }
    searchBlock(blocks[first]!, vector, need, j, cylinderCap, best);
    for (let i = 0; i < blocks.length; i++) {
      if (i !== first && bounds[i]! - 1e-12 < best.closedSquare) searchBlock(blocks[i]!, vector, need, j, cylinderCap, best);
    }
    return best.list();
  };
}

/**
 * The makeable powers that leave an eye the least blur, best first: the same list that trying every lens would
 * give. Blocks, cylinders, axes and spheres are taken nearest first, and each is left as soon as its least
 * possible blur cannot enter the list; memory does not grow with the number of lenses.
 * @param need power the eye asks for at the cornea (D, TABO degrees, minus cylinder), unrounded
 * @param blocks what is made; whole-degree axes
 * @example nearestPowers({sphere: -3.13, cylinder: -1.59, axis: 20}, family.blocks, {limit: 1})[0].power → {sphere: -3, cylinder: -1.75, axis: 20}
 * @source least blur strength, Thibos et al. 1997; tie rules in `compareRanked`
 */
export const nearestPowers = (need: Refraction, blocks: readonly LensBlock[], options: NearestPowersOptions): Ranked[] => searchFor(need, options)(blocks);

/**
 * The same for every family of a catalogue, in its order.
 * @example nearestInEach({sphere: -3.13, cylinder: -1.59, axis: 20}, [family], {limit: 1})[0][0].power → {sphere: -3, cylinder: -1.75, axis: 20}
 */
export function nearestInEach(need: Refraction, families: readonly { readonly blocks: readonly LensBlock[] }[], options: NearestPowersOptions): Ranked[][] {
  const search = searchFor(need, options);
  return families.map((family) => search(family.blocks));
}
