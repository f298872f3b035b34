import { halved, sampled, type Circle, type Plane } from './plane';

/** Radii of the limbus that are looked for, as shares of the picture's height. */
const RADII = { from: 0.22, to: 0.44 } as const;
/** Directions in which the limbus is usually free of lids: to both sides and a little below, degrees clockwise from the right. */
const FREE: readonly number[] = Array.from({ length: 60 }, (_, i) => (i < 30 ? -25 + i * 3 : 120 + (i - 30) * 3)).map((d) => (d * Math.PI) / 180);

/** How much brighter it gets outwards across a circle, on its free arcs: the mean of each side, and the lesser of the two. */
function stepAcross(plane: Plane, { x, y, r }: Circle, gap: number): number {
  const sides = [0, 0];
  FREE.forEach((a, i) => {
    const [c, s] = [Math.cos(a), Math.sin(a)];
    const step = sampled(plane, x + (r + gap) * c, y + (r + gap) * s) - sampled(plane, x + (r - gap) * c, y + (r - gap) * s);
    sides[i < FREE.length / 2 ? 0 : 1] = (sides[i < FREE.length / 2 ? 0 : 1] ?? 0) + Math.min(0.5, Math.max(-0.2, step));
  });
  const [right = 0, left = 0] = sides;
  return (Math.min(right, left) * 0.7 + Math.max(right, left) * 0.3) / (FREE.length / 2);
}

/** The best circle around a first guess, in ever smaller steps. */
function refined(plane: Plane, first: Circle, gap: number, steps: readonly number[]): { readonly circle: Circle; readonly score: number } {
  let best = { circle: first, score: stepAcross(plane, first, gap) };
  for (const step of steps)
    for (let moved = true, turns = 0; moved && turns < 40; turns++) {
      moved = false;
      for (const [dx, dy, dr] of [
        [1, 0, 0],
        [-1, 0, 0],
        [0, 1, 0],
        [0, -1, 0],
        [0, 0, 1],
        [0, 0, -1],
        [1, 0, 1],
        [-1, 0, 1],
      ] as const) {
        const { x, y, r } = best.circle;
        const circle = { x: x + dx * step, y: y + dy * step, r: r + dr * step };
        const score = stepAcross(plane, circle, gap);
        if (score > best.score) {
          best = { circle, score };
          moved = true;
        }
      }
    }
  return best;
}

/**
 * The limbus: the circle across which it gets brighter outwards on both sides. Null where nothing in the picture looks like one.
 * @param plane brightness; a channel in which iris and white differ
 */
export function findLimbus(plane: Plane): { readonly circle: Circle; readonly score: number } | null {
  const quarter = halved(halved(plane));
  let coarse: { circle: Circle; score: number } | null = null;
  for (let r = quarter.height * RADII.from; r <= quarter.height * RADII.to; r += 3)
    for (let y = quarter.height * 0.3; y <= quarter.height * 0.7; y += 4)
      for (let x = quarter.width * 0.3; x <= quarter.width * 0.7; x += 4) {
        const score = stepAcross(quarter, { x, y, r }, 3);
        if (coarse === null || score > coarse.score) coarse = { circle: { x, y, r }, score };
      }
  if (coarse === null || coarse.score < LEAST_STEP) return null;
  const { circle } = refined(quarter, coarse.circle, 3, [2, 1, 0.5]);
  const found = refined(plane, { x: circle.x * 4 + 1.5, y: circle.y * 4 + 1.5, r: circle.r * 4 }, 8, [4, 2, 1, 0.5]);
  return found.score < LEAST_STEP ? null : found;
}
/** How much brighter the white must be than the iris. Our own. */
const LEAST_STEP = 0.05;
