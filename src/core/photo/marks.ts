import type { MarkLayout } from '../lens/family';
import type { Degrees } from '../units';
import { median, sampled, type Circle, type Plane } from './plane';

/** Angles at which the ring of marks is read, degrees. */
export const MARK_STEP: Degrees = 0.25;
const COUNT = 360 / MARK_STEP;
/** A lens of this radius stands for the scale of the picture, mm: soft lenses for one eye differ by a thirtieth. */
const LENS_RADIUS_MM = 7.1;
/** Where marks lie, mm inwards from the edge. */
const FROM_EDGE = { outer: 0.5, inner: 1.25 } as const;
/** How far beside a mark its surroundings are read, mm. */
const BESIDE = [0.22, 0.32] as const;
/** Blood reddens: a vessel takes more than three times as much green as red. What of a difference is vessel is taken away by this share. */
const VESSEL = 0.44;

/** How much each direction looks like a radial line that is no vessel, in standard deviations; darker negative. */
export interface MarkEvidence {
  /** By direction, degrees clockwise from straight down in steps of MARK_STEP. */
  readonly z: Float32Array;
}

/** Difference of a line from what lies beside it, of one channel, averaged along a radius. */
function lineAt(plane: Plane, { x, y }: Circle, mm: number, from: number, to: number, angle: number): number {
  const [s, c] = [Math.sin(angle), Math.cos(angle)];
  let sum = 0;
  let count = 0;
  for (let r = from; r <= to; r += 1) {
    const [px, py] = [x - r * s, y + r * c];
    // Sideways is square to the radius.
    const at = (by: number): number => sampled(plane, px - by * mm * c, py - by * mm * s);
    const on = (at(0) * 2 + at(0.045) + at(-0.045)) / 4;
    const about = (at(BESIDE[0]) + at(-BESIDE[0]) + at(BESIDE[1]) + at(-BESIDE[1])) / 4;
    sum += Math.min(0.3, Math.max(-0.3, on - about));
    count++;
  }
  return count === 0 ? 0 : sum / count;
}

/** Reads the ring of marks all the way round. @param red @param green channels of the picture */
export function markEvidence(red: Plane, green: Plane, lens: Circle): MarkEvidence {
  const mm = lens.r / LENS_RADIUS_MM;
  const [from, to] = [lens.r - FROM_EDGE.inner * mm, lens.r - FROM_EDGE.outer * mm];
  const raw = new Float32Array(COUNT);
  for (let i = 0; i < COUNT; i++) {
    const angle = (i * MARK_STEP * Math.PI) / 180;
    const r = lineAt(red, lens, mm, from, to, angle);
    const g = lineAt(green, lens, mm, from, to, angle);
    raw[i] = r - VESSEL * (g - r);
  }
  const usual = median(raw);
  const spread = Math.max(0.002, 1.4826 * median(Array.from(raw, (v) => Math.abs(v - usual))));
  return { z: raw.map((v) => (v - usual) / spread) };
}

/** Where the marks of a layout lie, degrees clockwise from its own zero. */
export const anglesOf = (layout: MarkLayout, spacing: Degrees): readonly Degrees[] =>
  layout === 'six' ? [0] : layout === 'twelve' ? [180] : layout === 'threeNine' ? [90, 270] : layout === 'fiveSixSeven' ? [-spacing, 0, spacing] : [];

/** How far a lens is looked for on either side, degrees. */
const LOOKED: Degrees = 50;
/** A line that stands out less is none. Our own. */
const LEAST_Z = 5;
/** Marks that have to be seen: one of three is not the one at 6, and one of two may be a vessel. */
const NEEDED: Readonly<Partial<Record<MarkLayout, number>>> = { six: 1, twelve: 1, threeNine: 2, fiveSixSeven: 2 };
/** What comes next, this far away, must stand out less than this share; three marks moved by one leave two in place. */
const NEXT = { apart: 3, share: 0.62, shareOfThree: 0.85 } as const;

export type MarksFound =
  | { readonly ok: true; readonly turn: Degrees; readonly stands: number }
  /** `unclear`: no line stands out enough; `rivals`: two places fit about as well; `tooFew`: not enough of its marks are seen. */
  | { readonly ok: false; readonly why: 'unclear' | 'rivals' | 'tooFew' };

/**
 * Where the marks of a layout sit.
 * @param roll degrees that the picture is turned clockwise
 * @returns degrees clockwise against the line of the canthi, so to the examiner's left positive
 */
export function findMarks({ z }: MarkEvidence, layout: MarkLayout, spacing: Degrees, roll: Degrees): MarksFound {
  const angles = anglesOf(layout, spacing);
  const needed = NEEDED[layout];
  if (needed === undefined) return { ok: false, why: 'tooFew' };
  const at = (degrees: number, sign: number): number => {
    const i = ((Math.round(degrees / MARK_STEP) % COUNT) + COUNT) % COUNT;
    return sign * (z[i] ?? 0);
  };
  /** Marks at this turn, of one polarity: the strongest within a degree of where each should be counts. */
  const each = (turn: number, sign: number): number[] => angles.map((a) => Math.max(0, at(a + turn + roll, sign)));
  const scored: { turn: number; sign: number; score: number }[] = [];
  for (const sign of [-1, 1])
    for (let turn = -LOOKED; turn <= LOOKED; turn += MARK_STEP) {
      const marks = each(turn, sign);
      // A strong line alone does not speak for the others.
      const score = marks.reduce((sum, m) => sum + Math.min(m, 25), 0) / Math.sqrt(marks.length);
      scored.push({ turn, sign, score });
    }
  const best = scored.reduce((a, b) => (b.score > a.score ? b : a));
  const seen = each(best.turn, best.sign).filter((m) => m >= LEAST_Z).length;
  if (best.score < LEAST_Z * Math.sqrt(angles.length) * 0.8) return { ok: false, why: 'unclear' };
  if (seen < needed) return { ok: false, why: 'tooFew' };
  const next = scored.filter((s) => Math.abs(s.turn - best.turn) > NEXT.apart).reduce((a, b) => (b.score > a.score ? b : a));
  if (next.score > (angles.length === 3 ? NEXT.shareOfThree : NEXT.share) * best.score) return { ok: false, why: 'rivals' };
  const near = scored.filter((s) => s.sign === best.sign && Math.abs(s.turn - best.turn) <= 1.25);
  const weight = near.reduce((sum, s) => sum + Math.max(0, s.score - best.score / 2), 0);
  const turn = near.reduce((sum, s) => sum + s.turn * Math.max(0, s.score - best.score / 2), 0) / weight;
  return { ok: true, turn, stands: best.score };
}
