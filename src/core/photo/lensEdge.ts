import { climb } from './climb';
import { LENS_RADIUS_MM } from './radialLines';
import { median, polar, type Circle, type Plane, type Polar } from './plane';

/** Radii of a soft lens as shares of the limbus's: 13.5 to 15.2 mm over 11 to 12.6 mm. */
const SHARES = { from: 1.08, to: 1.36 } as const;
/** The limbus fades out up to here, as a share of its radius. */
const CLEAR = 1.07;
/** How far the lens's centre may lie from the cornea's, as a share of the limbus's radius. */
const OFF = 0.24;
/** Directions in which the ring is looked at. */
const ROWS = 360;
/** A single direction counts for no more than this: the edge is faint, vessels and lashes are not. */
const MOST = 0.02;
/** The same where it is known about where the edge is, and only which of its lines it is. */
const MOST_OF_WHOLE = 0.12;
/** Lines beside the edge that its bevel throws, mm of a lens of 7.1 mm. */
const BESIDE = [-0.25, 0, 0.25] as const;
/** How far the edge is looked for to both sides of it, as a share of the limbus's radius. */
const GAP = 0.033;
/** Rings about a whole lens, as shares of the limbus's radius. */
const RING = { from: 1, to: SHARES.to + OFF + GAP } as const;

/** Directions in which a circle a little outside the limbus lies on the white of the eye: 1; elsewhere 0. */
function onWhite(ring: Polar, limbus: Circle): Uint8Array {
  const column = (share: number): number => Math.round((share * limbus.r - ring.from) / ring.step);
  const at = (row: number, share: number): number => ring.of[row * ring.columns + column(share)] ?? 0;
  const sides = Array.from({ length: ring.rows }, (_, i) => i).filter((i) => Math.abs(Math.cos((i * 2 * Math.PI) / ring.rows)) < 0.4);
  const white = median(sides.map((i) => at(i, 1.22))) * 0.72;
  return Uint8Array.from({ length: ring.rows }, (_, i) => (at(i, 1.16) > white && at(i, 1.28) > white && at(i, 1.36) > white ? 1 : 0));
}

/** Up to here the fading limbus, alike in all directions, is taken away; a share of its radius. No lens is so small. */
const FADES = 1.16;
/** Directions to both sides that are taken together. */
const TOGETHER = 3;

/** How much each place of a ring is lighter than what lies a little inside and outside of it. */
function rawRidges({ rows, columns, of, step }: Polar, gap: number): Float32Array {
  const apart = Math.max(2, Math.round(gap / step));
  const raw = new Float32Array(rows * columns);
  for (let i = 0; i < rows; i++) {
    const row = i * columns;
    for (let j = apart + 1; j < columns - apart - 1; j++) {
      const at = row + j;
      const on = (of[at - 1] ?? 0) + (of[at] ?? 0) + (of[at + 1] ?? 0);
      const inside = (of[at - apart - 1] ?? 0) + (of[at - apart] ?? 0) + (of[at - apart + 1] ?? 0);
      const outside = (of[at + apart - 1] ?? 0) + (of[at + apart] ?? 0) + (of[at + apart + 1] ?? 0);
      raw[at] = (on - (inside + outside) / 2) / 3;
    }
  }
  return raw;
}

/** A few directions taken together. */
function together(raw: Float32Array, rows: number, columns: number): Float32Array {
  const out = new Float32Array(rows * columns);
  const count = 2 * TOGETHER + 1;
  for (let j = 0; j < columns; j++) {
    let sum = 0;
    const at = (row: number): number => raw[((row + rows) % rows) * columns + j] ?? 0;
    for (let i = -TOGETHER; i <= TOGETHER; i++) sum += at(i);
    for (let i = 0; i < rows; i++) {
      out[i * columns + j] = sum / count;
      sum += at(i + TOGETHER + 1) - at(i - TOGETHER);
    }
  }
  return out;
}

/** Takes away what runs about the limbus alike in all directions: it fades out in rings of its own. */
function withoutFading({ rows, columns, from, step, of }: Polar, white: Uint8Array): Float32Array {
  const out = Float32Array.from(of);
  const seen = Array.from({ length: rows }, (_, i) => i).filter((i) => white[i] === 1);
  for (let j = 0; j < columns && from + j * step < FADES * from; j++) {
    const fading = median(seen.map((i) => of[i * columns + j] ?? 0));
    for (let i = 0; i < rows; i++) out[i * columns + j] = (of[i * columns + j] ?? 0) - fading;
  }
  return out;
}

/** How much each place of a ring stands out: with nothing loud, to look for the edge by; and as it is, to tell its lines apart. */
function ridges(ring: Polar, gap: number, white: Uint8Array): { readonly quiet: Polar; readonly whole: Polar } {
  const whole = { ...ring, of: together(rawRidges(ring, gap), ring.rows, ring.columns) };
  const clip = (of: Float32Array, most: number): Polar => ({ ...ring, of: of.map((v) => (v > most ? most : v < -most ? -most : v)) });
  return { quiet: clip(withoutFading(whole, white), MOST), whole: clip(whole.of, MOST_OF_WHOLE) };
}

/** A direction of the ring as looked at. */
interface Way {
  readonly row: number;
  readonly ux: number;
  readonly uy: number;
}

/** How much a circle stands out: the mean over the directions in which it lies on the white, and clear of the limbus. */
function standing(ring: Polar, limbus: Circle, ways: readonly Way[]): (circle: Circle) => number {
  const { columns, from, step, of } = ring;
  const clear = limbus.r * CLEAR;
  return ({ x, y, r }) => {
    const [ox, oy] = [x - limbus.x, y - limbus.y];
    let [sum, count] = [0, 0];
    for (const { row, ux, uy } of ways) {
      // Where a line from the limbus's centre meets the circle.
      const along = ox * ux + oy * uy;
      const beside = ox * uy - oy * ux;
      const distance = along + Math.sqrt(Math.max(0, r * r - beside * beside));
      if (distance < clear) continue;
      const at = (distance - from) / step;
      const j = at | 0;
      if (j < 0 || j >= columns - 1) continue;
      const k = row * columns + j;
      const share = at - j;
      sum += (of[k] ?? 0) * (1 - share) + (of[k + 1] ?? 0) * share;
      count++;
    }
    // Few directions agree by chance more easily than many.
    return count < ways.length / 2 ? 0 : (sum / count) * Math.sqrt(count / ways.length);
  };
}

export interface LensEdge {
  readonly circle: Circle;
  /** How far it stands out, in standard deviations of rings that are none. */
  readonly stands: number;
}

/** How much further than it was looked for a circle may come to lie while it is made exact. Our own. */
const GIVE = 1.15;
/** Whether a circle can be a soft lens about this limbus: where it cannot, one of the two is not what it was taken for. */
const plausible = (circle: Circle, { x, y, r }: Circle): boolean =>
  Math.hypot(circle.x - x, circle.y - y) < OFF * GIVE * r && circle.r > SHARES.from * r && circle.r < SHARES.to * r;

/**
 * The edge of the lens: a ring outside the limbus that is lighter or darker than what lies to both sides of it.
 * @returns null where too little of the white is free of lids, or what stands out is no lens about this limbus
 */
export function findLensEdge(plane: Plane, limbus: Circle): LensEdge | null {
  const ring = polar(plane, limbus, ROWS, limbus.r * RING.from, limbus.r * RING.to);
  const white = onWhite(ring, limbus);
  const ways = Array.from({ length: ROWS }, (_, row) => ({ row, ux: -Math.sin((row * 2 * Math.PI) / ROWS), uy: Math.cos((row * 2 * Math.PI) / ROWS) })).filter(
    (w) => white[w.row] === 1,
  );
  if (ways.length < ROWS / 4) return null;
  const { quiet, whole } = ridges(ring, limbus.r * GAP, white);
  const coarse = standing(
    quiet,
    limbus,
    ways.filter((_, i) => i % 3 === 0),
  );
  const tries: { circle: Circle; mean: number }[] = [];
  const reach = limbus.r * OFF;
  const apart = limbus.r / 48;
  for (let r = limbus.r * SHARES.from; r <= limbus.r * SHARES.to; r += apart * 0.6)
    for (let dx = -reach; dx <= reach; dx += apart)
      for (let dy = -reach; dy <= reach; dy += apart) {
        if (dx * dx + dy * dy > reach * reach) continue;
        const circle = { x: limbus.x + dx, y: limbus.y + dy, r };
        tries.push({ circle, mean: coarse(circle) });
      }
  const usual = median(tries.map((t) => t.mean));
  const spread = 1.4826 * median(tries.map((t) => Math.abs(t.mean - usual)));
  const first = tries.reduce((a, b) => (Math.abs(b.mean) > Math.abs(a.mean) ? b : a));
  const fine = standing(quiet, limbus, ways);
  const sign = Math.sign(first.mean);
  const near = climb(first.circle, (circle) => sign * fine(circle), [2, 1, 0.5]);
  // The bevel shines beside the edge, in the other brightness: of these lines the edge is the strongest.
  const exact = standing(whole, limbus, ways);
  const found = BESIDE.map((mm) => {
    const circle = { ...near.circle, r: near.circle.r * (1 + mm / LENS_RADIUS_MM) };
    const way = Math.sign(exact(circle));
    return climb(circle, (c) => way * exact(c), [1, 0.5]);
  }).reduce((a, b) => (b.score > a.score ? b : a));
  return plausible(found.circle, limbus) ? { circle: found.circle, stands: near.score / Math.max(1e-4, spread) } : null;
}
