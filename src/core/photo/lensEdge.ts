import { isInside, median, sampled, type Circle, type Plane } from './plane';

/** Radii of a soft lens as shares of the limbus's: 13.5 to 15.2 mm over 11 to 12.6 mm. */
const SHARES = { from: 1.08, to: 1.36 } as const;
/** The limbus fades out up to here, as a share of its radius. */
const CLEAR = 1.07;
/** How far the lens's centre may lie from the cornea's, as a share of the limbus's radius. */
const OFF = 0.24;

/** What the picture shows of a ring: how much it differs from just inside and outside, direction by direction. */
function ring(plane: Plane, { x, y, r }: Circle, limbus: Circle, gap: number, free: readonly number[]): number {
  const found: number[] = [];
  for (const a of free) {
    const [c, s] = [Math.cos(a), Math.sin(a)];
    if (!isInside(plane, x + (r + gap) * c, y + (r + gap) * s)) continue;
    // Where it comes near the limbus, the limbus would be read.
    if (Math.hypot(x + r * c - limbus.x, y + r * s - limbus.y) < limbus.r * CLEAR + gap) continue;
    const on = sampled(plane, x + r * c, y + r * s);
    const about = (sampled(plane, x + (r - gap) * c, y + (r - gap) * s) + sampled(plane, x + (r + gap) * c, y + (r + gap) * s)) / 2;
    found.push(Math.min(0.06, Math.max(-0.06, on - about)));
  }
  if (found.length < free.length / 2) return 0;
  // Few directions agree by chance more easily than many.
  return (found.reduce((a, b) => a + b, 0) / found.length) * Math.sqrt(found.length / free.length);
}

/** Directions, radians clockwise from the right, in which a circle a little outside the limbus lies on the white of the eye. */
export function freeDirections(plane: Plane, limbus: Circle): readonly number[] {
  const all = Array.from({ length: 360 }, (_, i) => (i * Math.PI) / 180);
  const at = (a: number, share: number): number => sampled(plane, limbus.x + limbus.r * share * Math.cos(a), limbus.y + limbus.r * share * Math.sin(a));
  const sides = all.filter((a) => Math.abs(Math.sin(a)) < 0.4).map((a) => at(a, 1.22));
  const white = median(sides);
  const isWhite = (v: number): boolean => v > white * 0.72;
  return all.filter((a) => isWhite(at(a, 1.16)) && isWhite(at(a, 1.28)) && isWhite(at(a, 1.36)));
}

export interface LensEdge {
  readonly circle: Circle;
  /** How far it stands out, in standard deviations of rings that are none. */
  readonly stands: number;
}

/**
 * The edge of the lens: a ring outside the limbus that is lighter or darker than what lies to both sides of it.
 * @returns null where too little of the white is free of lids
 */
export function findLensEdge(plane: Plane, limbus: Circle): LensEdge | null {
  const free = freeDirections(plane, limbus);
  if (free.length < 90) return null;
  const gap = limbus.r * 0.042;
  const tries: { circle: Circle; mean: number }[] = [];
  const reach = limbus.r * OFF;
  for (let r = limbus.r * SHARES.from; r <= limbus.r * SHARES.to; r += 1.5)
    for (let dx = -reach; dx <= reach; dx += 4)
      for (let dy = -reach; dy <= reach; dy += 4) {
        if (dx * dx + dy * dy > reach * reach) continue;
        const circle = { x: limbus.x + dx, y: limbus.y + dy, r };
        tries.push({ circle, mean: ring(plane, circle, limbus, gap, free) });
      }
  const usual = median(tries.map((t) => t.mean));
  const spread = 1.4826 * median(tries.map((t) => Math.abs(t.mean - usual)));
  let best = tries.reduce((a, b) => (Math.abs(b.mean) > Math.abs(a.mean) ? b : a));
  for (const step of [2, 1, 0.5])
    for (let moved = true, turns = 0; moved && turns < 30; turns++) {
      moved = false;
      for (const [dx, dy, dr] of [
        [1, 0, 0],
        [-1, 0, 0],
        [0, 1, 0],
        [0, -1, 0],
        [0, 0, 1],
        [0, 0, -1],
      ] as const) {
        const { x, y, r } = best.circle;
        const circle = { x: x + dx * step, y: y + dy * step, r: r + dr * step };
        const mean = ring(plane, circle, limbus, gap, free);
        if (Math.abs(mean) > Math.abs(best.mean)) {
          best = { circle, mean };
          moved = true;
        }
      }
    }
  return { circle: best.circle, stands: Math.abs(best.mean) / Math.max(1e-4, spread) };
}
