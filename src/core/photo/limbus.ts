import { climb, type Fitted } from './climb';
import { halved, sampled, type Circle, type Plane } from './plane';

/** Radii of the limbus that are looked for, as shares of the picture's height. */
const RADII = { from: 0.18, to: 0.46 } as const;
/** The side of the limbus that is free of lids: where the marks are, or the lid over them is held. */
export type OpenSide = 'below' | 'above';
interface Way {
  readonly c: number;
  readonly s: number;
}
/** Directions in which the limbus is free of lids: to both sides, and a little below or above. */
const waysOf = (open: OpenSide): readonly Way[] =>
  Array.from({ length: 60 }, (_, i) => (i < 30 ? -25 + i * 3 : 120 + (i - 30) * 3)).map((d) => ({
    c: Math.cos((d * Math.PI) / 180),
    s: Math.sin((d * Math.PI) / 180) * (open === 'below' ? 1 : -1),
  }));
const FREE: Readonly<Record<OpenSide, readonly Way[]>> = { below: waysOf('below'), above: waysOf('above') };
const HALF = FREE.below.length / 2;
/** How much brighter the white must be than the iris. Our own. */
const LEAST_STEP = 0.05;
/** Where it is looked for in the picture, as shares of its sides. */
const MIDDLE = { from: 0.27, to: 0.73 } as const;

/** How much brighter it gets outwards across a circle, on its free arcs: the mean of each side, and the lesser of the two. */
function stepAcross(plane: Plane, ways: readonly Way[], { x, y, r }: Circle, gap: number): number {
  const [outer, inner] = [r + gap, r - gap];
  const sides: [number, number] = [0, 0];
  let i = 0;
  for (const { c, s } of ways) {
    const step = sampled(plane, x + outer * c, y + outer * s) - sampled(plane, x + inner * c, y + inner * s);
    sides[i++ < HALF ? 0 : 1] += step > 0.5 ? 0.5 : step < -0.2 ? -0.2 : step;
  }
  const [right, left] = sides;
  return (Math.min(right, left) * 0.7 + Math.max(right, left) * 0.3) / HALF;
}

/**
 * The limbus: the circle across which it gets brighter outwards on both sides. Null where nothing in the picture looks like one.
 * @param plane brightness; a channel in which iris and white differ
 */
export function findLimbus(plane: Plane, open: OpenSide): Fitted | null {
  const ways = FREE[open];
  const quarter = halved(halved(plane));
  const [w, h] = [quarter.width, quarter.height];
  let coarse: Fitted | null = null;
  for (let r = h * RADII.from; r <= h * RADII.to; r += 3)
    for (let y = h * MIDDLE.from; y <= h * MIDDLE.to; y += 4)
      for (let x = w * MIDDLE.from; x <= w * MIDDLE.to; x += 4) {
        const circle = { x, y, r };
        const score = stepAcross(quarter, ways, circle, 3);
        if (coarse === null || score > coarse.score) coarse = { circle, score };
      }
  if (coarse === null || coarse.score < LEAST_STEP) return null;
  const { circle } = climb(coarse.circle, (c) => stepAcross(quarter, ways, c, 3), [2, 1, 0.5]);
  const found = climb({ x: circle.x * 4 + 1.5, y: circle.y * 4 + 1.5, r: circle.r * 4 }, (c) => stepAcross(plane, ways, c, 8), [2, 1, 0.5]);
  return found.score < LEAST_STEP ? null : found;
}
