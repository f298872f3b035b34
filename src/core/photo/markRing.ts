import type { Degrees } from '../units';
import { hiddenByLashes, lashedRows } from './lashes';
import { median, polar, type Circle, type Plane, type Polar } from './plane';
import { COUNT, LENS_RADIUS_MM, MARK_STEP, mostAbout, radialLines, wrapped, type Grain, type Lines } from './radialLines';

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
/** In what picture marks are looked for. */
export interface RingAsked {
  readonly grain: Grain;
  readonly limbus: Circle;
}
/** Blood reddens: a vessel takes more than three times as much green as red. What of a difference is vessel is taken away by this share. */
const VESSEL = 0.44;
/** A line through all its parts: the mean counts for no more than this much of the mean of its two fainter ones. */
const THROUGH = 1.3;
/** A light line counts for no more than this many times its faintest part: the two walls of a bubble are not joined. */
const FAINTEST = 4;
/** How much of what runs on beyond the edge is held against a line, and how much of it may be chance, in standard deviations. */
const AGAINST = 1.5;
const STRAY = 2;

/** How much each direction looks like a mark, in standard deviations of directions: darker marks, and lighter ones. */
export interface MarkEvidence {
  /** By direction, degrees clockwise from straight down in steps of MARK_STEP. */
  readonly dark: Float32Array;
  readonly light: Float32Array;
  /** Directions in which a lid lies over the rim, or a lash over any of it: 1; elsewhere 0. */
  readonly crossed: Uint8Array;
}

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

/** Half the width of the neighbourhood whose unrest a line has to stand out from, degrees. */
const ABOUT: Degrees = 24;
/** What stands out more than this many times the middle line counts no further. */
const LOUD = 4;
/** A standard deviation for each mean of what is above nothing: about two fifths of the directions are. */
const UNREST = 4;
/** The unrest of a still picture, as brightness: below it every speck would be a mark. */
const LEAST_UNREST = 0.004;
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

/** What of each line is more than chance. */
function above(of: Float32Array): Float32Array {
  const rest = unrest(of);
  return of.map((v, i) => Math.max(0, v - STRAY * (rest[i] ?? 0)));
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

/** What one part of a line says: how much it stands out, and how much that is to be trusted. */
interface PartSays {
  readonly v: number;
  readonly w: number;
}

/** How much of a line stands out through all of its parts that are seen clearly, each weighed by how still it is about it; 0 where nothing does. */
function through(parts: readonly PartSays[], sign: 'dark' | 'light'): { readonly much: number; readonly trust: number } {
  const trust = parts.reduce((sum, p) => sum + p.w, 0);
  const contrast = parts.reduce((sum, p) => sum + p.w * p.v, 0) / trust;
  if (!(contrast > 0)) return { much: 0, trust };
  const best = Math.max(...parts.map((p) => p.w));
  const clear = parts.filter((p) => p.w > best * CLEAR).map((p) => p.v);
  // All of it but its strongest part.
  const others = clear.length > 1 ? (clear.reduce((x, y) => x + y, 0) - Math.max(...clear)) / (clear.length - 1) : contrast;
  const most = sign === 'light' ? Math.min(THROUGH * others, FAINTEST * Math.min(...clear)) : THROUGH * others;
  return { much: Math.min(contrast, Math.max(0, most)), trust };
}

/** Reads the ring of marks all the way round. @param red @param green channels of the picture */
export function markEvidence(red: Plane, green: Plane, lens: Circle, { grain, limbus }: RingAsked): MarkEvidence {
  const { ring, covered } = ringOf(red, green, lens);
  const hidden = hiddenByLashes(ring, lens, limbus, lens.r / LENS_RADIUS_MM);
  const read = { ring, lens, grain, hidden };
  const parts = PARTS.map((part) => radialLines(read, part));
  const [between, inside, outside] = [RUN_ON.between, RUN_ON.inside, RUN_ON.outside].map(({ part }) => radialLines(read, part)) as [Lines, Lines, Lines];
  const evidence = (sign: 'dark' | 'light'): Float32Array => {
    const each = parts.map(({ [sign]: of, seen }) => ({ of, seen, rest: unrest(of) }));
    const on = runsOn(above(between[sign]), above(inside[sign]), above(outside[sign]));
    return Float32Array.from({ length: COUNT }, (_, i) => {
      const here = covered[i] === 1 ? [] : each.flatMap(({ of, seen, rest }) => (seen[i] === 1 ? { v: of[i] ?? 0, w: 1 / (rest[i] ?? 1) ** 2 } : []));
      if (here.length === 0) return 0;
      const { much, trust } = through(here, sign);
      return Math.max(0, much - AGAINST * (on[i] ?? 0)) * Math.sqrt(trust);
    });
  };
  const lashed = lashedRows(ring, hidden);
  return { dark: evidence('dark'), light: evidence('light'), crossed: covered.map((is, i) => is | (lashed[i] ?? 0)) };
}
