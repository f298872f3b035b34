import type { Degrees } from '../units';
import { hiddenAt, type Hidden } from './lashes';
import { median, type Circle, type Polar } from './plane';

/** Angles at which the ring of marks is read, degrees. */
export const MARK_STEP: Degrees = 0.25;
/** Directions of the ring. */
export const COUNT = 360 / MARK_STEP;
/** A lens of this radius stands for the scale of the picture, mm: soft lenses for one eye differ by a thirtieth. */
export const LENS_RADIUS_MM = 7.1;
/** How far beside a line its surroundings are read, mm: close, where the picture is fine; further off where grain and blur have spread the line. */
const BESIDE = { fine: [0.13, 0.2], grainy: [0.2, 0.3] } as const;
/** How a picture is read: by its grain. */
export type Grain = keyof typeof BESIDE;
/** A place of a line counts for no more than this. */
const MOST = 0.3;
/** A part of a line of which less than this is seen between lashes says nothing. */
const SEEN = 0.5;
/** A dark line is darker than the middle of what lies so far to both sides: what is dark between the two light walls of a bubble is not. */
const ABOUT: Degrees = 8;

/** A direction by its number, however often it goes round. */
export const wrapped = (i: number): number => ((i % COUNT) + COUNT) % COUNT;

/** The most of each neighbourhood, half so wide in steps. */
export function mostAbout(of: Float32Array, half: number): Float32Array {
  return of.map((_, i) => {
    let most = -Infinity;
    for (let k = -half; k <= half; k++) most = Math.max(most, of[wrapped(i + k)] ?? 0);
    return most;
  });
}

/** The picture's ring and how it is read. */
export interface RingRead {
  readonly ring: Polar;
  readonly lens: Circle;
  readonly grain: Grain;
  /** What lashes lie over. */
  readonly hidden: Hidden;
}

/** Radial lines against what lies to their left and to their right, by direction: how much each is darker than both, and lighter than both. */
export interface Lines {
  readonly dark: Float32Array;
  readonly light: Float32Array;
  /** 1 where enough of it is seen, else 0. */
  readonly seen: Uint8Array;
}

/** What is dark there and is darker than what lies further off as well. @param value brightness of each direction, NaN where it is not seen */
function darkerThanAbout(dark: Float32Array, value: Float32Array): Float32Array {
  const half = Math.round(ABOUT / MARK_STEP);
  const about = new Float32Array(half + 1);
  return dark.map((d, i) => {
    if (d <= 0) return d;
    let n = 0;
    for (let k = -half; k <= half; k += 2) {
      const v = value[wrapped(i + k)] ?? NaN;
      if (!Number.isNaN(v)) about[n++] = v;
    }
    return Math.min(d, Math.max(0, median(about.subarray(0, n)) - (value[i] ?? 0)));
  });
}

/**
 * Radial lines over a part of the ring. The flank of a dark line is lighter than one side only: it is no light line.
 * @param part mm inwards from the lens's edge, from and to
 */
export function radialLines({ ring, lens, grain, hidden }: RingRead, [outer, inner]: readonly [number, number]): Lines {
  const mm = lens.r / LENS_RADIUS_MM;
  const { columns, from, step, of } = ring;
  const column = (inwards: number): number => Math.min(columns - 1, Math.max(0, Math.round((lens.r - inwards * mm - from) / step)));
  const [first, last] = [column(inner), column(outer)];
  const rows = (across: number): number => Math.max(1, Math.round((across * mm) / lens.r / ((MARK_STEP * Math.PI) / 180)));
  const [near, far] = [rows(BESIDE[grain][0]), rows(BESIDE[grain][1])];
  const [dark, light, value, seen] = [new Float32Array(COUNT), new Float32Array(COUNT), new Float32Array(COUNT), new Uint8Array(COUNT)];
  for (let i = 0; i < COUNT; i++) {
    const row = (by: number): number => wrapped(i + by) * columns;
    const [a, b, c, n1, n2, f1, f2] = [row(-1), row(0), row(1), row(-near), row(near), row(-far), row(far)];
    let [left, right, all, count] = [0, 0, 0, 0];
    for (let j = first; j <= last; j++) {
      if (hiddenAt(hidden, b + j) || hiddenAt(hidden, n1 + j, f1 + j) || hiddenAt(hidden, n2 + j, f2 + j)) continue;
      const on = ((of[a + j] ?? 0) + 2 * (of[b + j] ?? 0) + (of[c + j] ?? 0)) / 4;
      const beside = (at: number, further: number): number => {
        if (hiddenAt(hidden, at)) return of[further] ?? 0;
        return hiddenAt(hidden, further) ? (of[at] ?? 0) : ((of[at] ?? 0) + (of[further] ?? 0)) / 2;
      };
      const [l, r] = [on - beside(n1 + j, f1 + j), on - beside(n2 + j, f2 + j)];
      count++;
      all += on;
      left += l > MOST ? MOST : l < -MOST ? -MOST : l;
      right += r > MOST ? MOST : r < -MOST ? -MOST : r;
    }
    seen[i] = count < SEEN * (last - first + 1) ? 0 : 1;
    dark[i] = seen[i] === 1 ? -Math.max(left, right) / count : 0;
    light[i] = seen[i] === 1 ? Math.min(left, right) / count : 0;
    value[i] = seen[i] === 1 ? all / count : NaN;
  }
  return { dark: darkerThanAbout(dark, value), light, seen };
}
