import type { Degrees } from '../units';
import { median, polar, type Circle, type Plane, type Polar } from './plane';

/** Angles at which the ring of marks is read, degrees. */
export const MARK_STEP: Degrees = 0.25;
/** Directions of the ring. */
const COUNT = 360 / MARK_STEP;
/** A lens of this radius stands for the scale of the picture, mm: soft lenses for one eye differ by a thirtieth. */
export const LENS_RADIUS_MM = 7.1;
/** A mark runs through these, mm inwards from the edge, and ends at the edge or before: a vessel, a lash and a crease run on. */
const PARTS = [
  [0.5, 0.75],
  [0.75, 1],
  [1, 1.25],
] as const;
/** A line that runs on passes here between its parts and the edge, comes near to the edge, and shows outside of it; a slanting one has wandered by so many degrees. */
const RUN_ON = {
  between: { part: [0.36, 0.5] },
  inside: { part: [0.1, 0.35], wandered: 3 },
  outside: { part: [-0.5, -0.12], wandered: 6 },
} as const;
/** A part in a neighbourhood this much more restless (in squares) says nothing: the iris under it. */
const CLEAR = 0.25;
/** How far beside a line its surroundings are read, mm: close, where the picture is fine; further off where grain and blur have spread the line. */
const BESIDE = { fine: [0.13, 0.2], grainy: [0.2, 0.3] } as const;
/** How a picture is read: by its grain. */
export type Grain = keyof typeof BESIDE;
/** In what picture marks are looked for, and whether among the lashes of the upper lid. */
export interface RingAsked {
  readonly grain: Grain;
  readonly amongLashes: boolean;
}
/** Blood reddens: a vessel takes more than three times as much green as red. What of a difference is vessel is taken away by this share. */
const VESSEL = 0.44;
/** A place of a line counts for no more than this: lashes are blacker than any mark. */
const MOST = 0.3;
/** A line through all its parts: the mean counts for no more than this much of the mean of its two fainter ones. */
const THROUGH = 1.3;
/** How much of what runs on beyond the edge is held against a line, and how much of it may be chance, in standard deviations. */
const AGAINST = 1.5;
const STRAY = 2;

/** How much each direction looks like a mark, in standard deviations of directions: darker marks, and lighter ones. */
export interface MarkEvidence {
  /** By direction, degrees clockwise from straight down in steps of MARK_STEP. */
  readonly dark: Float32Array;
  readonly light: Float32Array;
  /** Directions in which a lid, or a lash black as none of the marks, lies over the rim: 1; elsewhere 0. */
  readonly crossed: Uint8Array;
}

/** A line that runs on and is darker than this is a lash, as a share of full white. Our own. */
const LASH = 0.1;
/** Skin is redder than the white of the eye by more than this share: lamp and shade change brightness, not colour. */
const SKIN = 0.86;
/** A lid's margin is as wide as this, degrees. */
const MARGIN: Degrees = 1;

/** The ring of marks laid out flat, without the redness of vessels; and where a lid lies over its rim. */
function ringOf(red: Plane, green: Plane, lens: Circle): { readonly ring: Polar; readonly covered: Uint8Array } {
  const mm = lens.r / LENS_RADIUS_MM;
  const [from, to] = [lens.r - 1.3 * mm, lens.r + 0.55 * mm];
  const [r, g] = [polar(red, lens, COUNT, from, to, 1.5), polar(green, lens, COUNT, from, to, 1.5)];
  const [rim, end] = [(lens.r - 0.3 * mm - from) / r.step, (lens.r + 0.25 * mm - from) / r.step].map(Math.round) as [number, number];
  const whiteness = Float32Array.from({ length: COUNT }, (_, i) => {
    let [reds, greens] = [0, 0];
    for (let k = i * r.columns + rim; k <= i * r.columns + end; k++) {
      reds += r.of[k] ?? 0;
      greens += g.of[k] ?? 0;
    }
    return greens / Math.max(1e-3, reds);
  });
  const white = Float32Array.from(whiteness).sort()[Math.floor(COUNT * 0.7)] ?? 1;
  const redder = mostAbout(
    whiteness.map((w) => (w < SKIN * white ? 1 : 0)),
    Math.round(MARGIN / MARK_STEP),
  );
  return { ring: { ...r, of: r.of.map((v, i) => v - VESSEL * ((g.of[i] ?? 0) - v)) }, covered: Uint8Array.from(redder) };
}

/** A radial line against what lies to its left and to its right, by direction: how much it is darker than both, and lighter than both. */
interface Lines {
  readonly dark: Float32Array;
  readonly light: Float32Array;
}

/** Radial lines over a part of the ring, mm inwards from the edge. The flank of a dark line is lighter than one side only: it is no light line. */
function lines(ring: Polar, lens: Circle, { grain, amongLashes }: RingAsked, [outer, inner]: readonly [number, number]): Lines {
  const mm = lens.r / LENS_RADIUS_MM;
  const { columns, from, step, of } = ring;
  const column = (inwards: number): number => Math.min(columns - 1, Math.max(0, Math.round((lens.r - inwards * mm - from) / step)));
  const [first, last] = [column(inner), column(outer)];
  const rows = (across: number): number => Math.max(1, Math.round((across * mm) / lens.r / ((MARK_STEP * Math.PI) / 180)));
  const [near, far] = [rows(BESIDE[grain][0]), rows(BESIDE[grain][1])];
  const [dark, light, value] = [new Float32Array(COUNT), new Float32Array(COUNT), new Float32Array(COUNT)];
  const count = last - first + 1;
  for (let i = 0; i < COUNT; i++) {
    const row = (by: number): number => wrapped(i + by) * columns;
    const [a, b, c, n1, n2, f1, f2] = [row(-1), row(0), row(1), row(-near), row(near), row(-far), row(far)];
    let [left, right, all] = [0, 0, 0];
    for (let j = first; j <= last; j++) {
      const on = ((of[a + j] ?? 0) + 2 * (of[b + j] ?? 0) + (of[c + j] ?? 0)) / 4;
      const l = on - ((of[n1 + j] ?? 0) + (of[f1 + j] ?? 0)) / 2;
      const r = on - ((of[n2 + j] ?? 0) + (of[f2 + j] ?? 0)) / 2;
      all += on;
      left += l > MOST ? MOST : l < -MOST ? -MOST : l;
      right += r > MOST ? MOST : r < -MOST ? -MOST : r;
    }
    dark[i] = -Math.max(left, right) / count;
    light[i] = Math.min(left, right) / count;
    value[i] = all / count;
  }
  return { dark, light: amongLashes ? truly(light, value) : light };
}

/** Half the width of the neighbourhood whose unrest a line has to stand out from, degrees. */
const ABOUT: Degrees = 24;
/** What stands out more than this many times the middle line counts no further. */
const LOUD = 4;
/** A standard deviation for each mean of what is above nothing: about two fifths of the directions are. */
const UNREST = 4;
/** The unrest of a still picture, as brightness: below it every speck would be a mark. */
const LEAST_UNREST = 0.004;
/** A direction by its number, however often it goes round. */
export const wrapped = (i: number): number => ((i % COUNT) + COUNT) % COUNT;

/** How restless each neighbourhood is. */
function unrest(of: Float32Array): Float32Array {
  const half = Math.round(ABOUT / MARK_STEP);
  // A lash or a mark in the neighbourhood counts no more than anything else that stands out of it.
  const lines = of.filter((v) => v > 0);
  const most = LOUD * median(lines);
  const quiet = of.map((v) => Math.min(most, Math.max(0, v)));
  const out = new Float32Array(COUNT);
  let sum = 0;
  for (let i = -half; i <= half; i++) sum += quiet[wrapped(i)] ?? 0;
  for (let i = 0; i < COUNT; i++) {
    out[i] = Math.max(LEAST_UNREST, (UNREST * sum) / (2 * half + 1));
    sum += (quiet[wrapped(i + half + 1)] ?? 0) - (quiet[wrapped(i - half)] ?? 0);
  }
  return out;
}

/** The most of each neighbourhood, half so wide in steps. */
export function mostAbout(of: Float32Array, half: number): Float32Array {
  return of.map((_, i) => {
    let most = -Infinity;
    for (let k = -half; k <= half; k++) most = Math.max(most, of[wrapped(i + k)] ?? 0);
    return most;
  });
}

/** What of each line is more than chance. */
function above(of: Float32Array): Float32Array {
  const rest = unrest(of);
  return of.map((v, i) => Math.max(0, v - STRAY * (rest[i] ?? 0)));
}

/** Darker by more than this than the middle of its ring is a lash or a shadow, and says nothing of how light the white is. */
const SHADOW = 0.05;

/**
 * Light lines that are lighter than the white about them as well: what is left white between two lashes is lighter than both and no mark.
 * @param value brightness of each direction
 */
function truly(light: Float32Array, value: Float32Array): Float32Array {
  const least = median(value) - SHADOW;
  const half = Math.round(ABOUT / MARK_STEP);
  const white = value.map((v) => Math.max(least, v));
  let sum = 0;
  for (let i = -half; i <= half; i++) sum += white[wrapped(i)] ?? 0;
  return light.map((l, i) => {
    const about = sum / (2 * half + 1);
    sum += (white[wrapped(i + half + 1)] ?? 0) - (white[wrapped(i - half)] ?? 0);
    return Math.min(l, Math.max(0, (value[i] ?? 0) - about));
  });
}

/** How much of each direction's line runs on beyond the edge: by a way that is as dark between as it is near the edge, and by something outside. */
function runsOn(between: Float32Array, inside: Float32Array, outside: Float32Array): Float32Array {
  const reach = Math.round(RUN_ON.inside.wandered / MARK_STEP);
  const out = mostAbout(outside, Math.round(RUN_ON.outside.wandered / MARK_STEP));
  return between.map((_, i) => {
    let most = 0;
    for (let d = -reach; d <= reach; d++) most = Math.max(most, Math.min(inside[wrapped(i + d)] ?? 0, between[wrapped(i + Math.round(d / 2))] ?? 0));
    return Math.min(most, out[i] ?? 0);
  });
}

/** Reads the ring of marks all the way round. @param red @param green channels of the picture */
export function markEvidence(red: Plane, green: Plane, lens: Circle, asked: RingAsked): MarkEvidence {
  const { ring, covered } = ringOf(red, green, lens);
  const parts = PARTS.map((part) => lines(ring, lens, asked, part));
  const [between, inside, outside] = [RUN_ON.between, RUN_ON.inside, RUN_ON.outside].map(({ part }) => lines(ring, lens, asked, part)) as [Lines, Lines, Lines];
  const evidence = (sign: 'dark' | 'light'): Float32Array => {
    const read = parts.map(({ [sign]: of }) => ({ of, rest: unrest(of) }));
    const on = runsOn(above(between[sign]), above(inside[sign]), above(outside[sign]));
    return Float32Array.from({ length: COUNT }, (_, i) => {
      if (covered[i] === 1) return 0;
      const here = read.map(({ of, rest }) => ({ v: of[i] ?? 0, w: 1 / (rest[i] ?? 1) ** 2 }));
      const trust = here.reduce((sum, p) => sum + p.w, 0);
      const contrast = here.reduce((sum, p) => sum + p.w * p.v, 0) / trust;
      if (contrast <= 0) return 0;
      const best = Math.max(...here.map((p) => p.w));
      const clear = here.filter((p) => p.w > best * CLEAR).map((p) => p.v);
      // All of it but its strongest part.
      const others = clear.length > 1 ? (clear.reduce((x, y) => x + y, 0) - Math.max(...clear)) / (clear.length - 1) : contrast;
      const through = Math.min(contrast, Math.max(0, THROUGH * others));
      return Math.max(0, through - AGAINST * (on[i] ?? 0)) * Math.sqrt(trust);
    });
  };
  return { dark: evidence('dark'), light: evidence('light'), crossed: covered.map((is, i) => (is === 1 || (outside.dark[i] ?? 0) > LASH ? 1 : 0)) };
}
