import type { MarkLayout } from '../lens/family';
import type { Degrees } from '../units';
import { anglesOf } from './markLayout';
import type { MarkEvidence } from './markRing';
import { MARK_STEP, mostAbout, wrapped, type Grain } from './radialLines';

/** How far a lens is looked for on either side, degrees. */
const LOOKED: Degrees = 50;
/** Where several marks speak for each other, one that stands out less is none. Our own. */
const LEAST_Z = 3.5;
/** What the marks of a layout have to come to, and how much less the next place must: three marks moved by one leave two in place. Our own. */
interface Wanted {
  readonly score: number;
  readonly next: number;
  /** Marks that have to be seen: one of three is not the one at 6, and one of two may be anything. */
  readonly seen: number;
}
const SINGLE: Readonly<Record<Grain, Wanted>> = { fine: { score: 8.5, next: 0.7, seen: 1 }, grainy: { score: 10, next: 0.5, seen: 1 } };
const PAIR: Wanted = { score: 4.5, next: 0.7, seen: 2 };
const THREE: Wanted = { score: 4.5, next: 0.9, seen: 2 };
const wantedOf = (count: number, grain: Grain): Wanted => (count === 1 ? SINGLE[grain] : count === 2 ? PAIR : THREE);
/** Places this near to the best are the best, degrees. */
const APART: Degrees = 4;

export type MarksFound =
  | { readonly ok: true; readonly turn: Degrees; readonly stands: number }
  /** `unclear`: no line stands out enough; `rivals`: two places fit about as well; `tooFew`: not enough of its marks are seen. */
  | { readonly ok: false; readonly why: 'unclear' | 'rivals' | 'tooFew' };

interface Scored {
  readonly turn: Degrees;
  readonly score: number;
  readonly seen: number;
}
/** How far each mark may lie beside its place, degrees: a lens's centre is found to a tenth of a millimetre. */
const SLACK: Degrees = 1.5;

/** How well the marks of a layout fit at each turn, of one polarity. @param near the most of each neighbourhood */
function scores(near: Float32Array, angles: readonly Degrees[], roll: Degrees): Scored[] {
  const out: Scored[] = [];
  for (let turn = -LOOKED; turn <= LOOKED; turn += MARK_STEP) {
    const marks = angles.map((a) => Math.max(0, near[wrapped(Math.round((a + turn + roll) / MARK_STEP))] ?? 0));
    const mean = marks.reduce((sum, m) => sum + m, 0) / marks.length;
    // A strong line alone does not speak for the others.
    const second = marks.length === 1 ? mean : ([...marks].sort((a, b) => b - a)[1] ?? 0);
    out.push({ turn, score: Math.min(mean, 1.5 * second), seen: marks.filter((m) => m >= LEAST_Z).length });
  }
  return out;
}

/** Where a mark lies near its place, degrees beside it: the middle of its peak. Null where none stands out. */
function besideItsPlace(z: Float32Array, place: Degrees): Degrees | null {
  const at = Math.round(place / MARK_STEP);
  const reach = Math.round(SLACK / MARK_STEP) + 2;
  let best = -reach;
  const of = (k: number): number => z[wrapped(at + k)] ?? 0;
  for (let k = -reach; k <= reach; k++) if (of(k) > of(best)) best = k;
  const peak = of(best);
  if (peak < LEAST_Z) return null;
  let [sum, weight] = [0, 0];
  for (let k = best - 5; k <= best + 5; k++) {
    const w = Math.max(0, of(k) - peak / 2);
    sum += w * k;
    weight += w;
  }
  return (at + sum / weight) * MARK_STEP - place;
}

/** Where lashes or a lid cross more than this share of the ring, a single mark is not told from what is left of a lash. Our own. */
const CROWDED: Readonly<Record<Grain, number>> = { fine: 0.6, grainy: 0.3 };
/** How much of the ring where a mark may sit is crossed. */
function crossedShare(crossed: Uint8Array, place: Degrees): number {
  const [from, to] = [place - LOOKED, place + LOOKED].map((d) => Math.round(d / MARK_STEP)) as [number, number];
  let sum = 0;
  for (let i = from; i <= to; i++) sum += crossed[wrapped(i)] ?? 0;
  return sum / (to - from + 1);
}

/** Which marks are looked for, and in what picture. */
interface AskedOfMarks {
  readonly layout: MarkLayout;
  readonly spacing: Degrees;
  /** Degrees that the picture is turned clockwise. */
  readonly roll: Degrees;
  readonly grain: Grain;
}

/**
 * Where the marks of a layout sit.
 * @returns degrees clockwise against the line of the canthi, so to the examiner's left positive
 */
export function findMarks({ dark, light, crossed }: MarkEvidence, { layout, spacing, roll, grain }: AskedOfMarks): MarksFound {
  const angles = anglesOf(layout, spacing);
  if (angles.length === 0) return { ok: false, why: 'tooFew' };
  if (angles.length === 1 && crossedShare(crossed, (angles[0] ?? 0) + roll) > CROWDED[grain]) return { ok: false, why: 'rivals' };
  const slack = angles.length === 1 ? 0 : Math.round(SLACK / MARK_STEP);
  const [ofDark, ofLight] = [scores(mostAbout(dark, slack), angles, roll), scores(mostAbout(light, slack), angles, roll)];
  const better = (a: Scored, b: Scored): Scored => (b.score > a.score ? b : a);
  const [bestDark, bestLight] = [ofDark.reduce(better), ofLight.reduce(better)];
  const [z, best] = bestDark.score >= bestLight.score ? [dark, bestDark] : [light, bestLight];
  const wanted = wantedOf(angles.length, grain);
  if (best.score < wanted.score) return { ok: false, why: 'unclear' };
  if (best.seen < wanted.seen) return { ok: false, why: 'tooFew' };
  const next = [...ofDark, ...ofLight].filter((s) => Math.abs(s.turn - best.turn) > APART).reduce(better);
  if (next.score > wanted.next * best.score) return { ok: false, why: 'rivals' };
  const found = angles.flatMap((a) => besideItsPlace(z, a + best.turn + roll) ?? []);
  const off = found.reduce((sum, f) => sum + f, 0) / Math.max(1, found.length);
  return { ok: true, turn: best.turn + off, stands: best.score };
}
