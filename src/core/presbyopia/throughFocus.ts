import type { MultifocalDesign } from '../lens/catalogueFamily';
import { LINE, type LogMar } from '../optics/acuity';
import type { Dioptres, Eye, Millimetres } from '../units';
import { nearPower } from './powerProfile';

/** What of an eye and its lens blurs, whatever the distance. */
export interface LensInPupil {
  /** Half the cylinder that is left, D. */
  readonly halfCylinderLeft: Dioptres;
  /** Null: a single-vision lens. */
  readonly near: { readonly design: MultifocalDesign; readonly add: Dioptres } | null;
  readonly pupilMm: Millimetres;
  /** How far the lens's centre lies from the pupil's, mm. */
  readonly decentredMm?: Millimetres;
}
/** What of an eye and the lens on it decides how far off it sees. */
export interface EyeThroughLens extends LensInPupil {
  /** What the eye still asks for at far: need less far power of the lens, mean sphere, D. */
  readonly sphereLeft: Dioptres;
  /** Best acuity of the eye, logMAR. */
  readonly best: LogMar;
}

/** Blur in minutes of arc for each mm of pupil and dioptre. Source: Smith 1991, from memory. */
const SMITH = 0.65;
/**
 * How the finest letter hangs on contrast: letters of a tenth of the contrast cost two lines, 10^(−0.2 · 5).
 * Source: low-contrast letter charts, common practice.
 */
const CONTRAST_POWER = 5;
const RINGS = 24;
const AROUND = 8;
/** Sizes of letters that are looked at, logMAR, fine to coarse. */
const FINEST: LogMar = -0.4;
const STEP: LogMar = LINE * 0.4;
const SIZES = 43;
const COARSEST: LogMar = FINEST + STEP * (SIZES - 1);
const sizeAt = (i: number): LogMar => FINEST + STEP * i;

/**
 * What light at a distance s from where it belongs adds to the contrast of a detail, s in details. It is Smith's law taken apart
 * by rings of the pupil: over a pupil evenly out of focus these add up to (1 − s²)^2.5, the contrast at which the law's acuity,
 * MAR² = best² + (0.65 · pupil · D)², is just read. Negative where dark falls on bright.
 */
function share(s: number): number {
  if (s >= 1) return 0;
  const left = 1 - s * s;
  return left * Math.sqrt(left) * (1 - 3.5 * s * s);
}

/** Blur of each part of the pupil, minutes of arc, where the far power is off by so much. */
function blurs(lens: LensInPupil, off: Dioptres): Float64Array {
  const radius = lens.pupilMm / 2;
  const beside = lens.decentredMm ?? 0;
  const even = beside === 0 && lens.halfCylinderLeft === 0;
  const around = even ? 1 : AROUND;
  const x = new Float64Array(RINGS * around);
  const y = new Float64Array(RINGS * around);
  const { near, halfCylinderLeft } = lens;
  let k = 0;
  for (let i = 0; i < RINGS; i++) {
    // Rings of one area each.
    const ring = radius * Math.sqrt((i + 0.5) / RINGS);
    for (let a = 0; a < around; a++, k++) {
      const angle = ((a + 0.5) * 2 * Math.PI) / around;
      const px = even ? ring : ring * Math.cos(angle);
      const py = even ? 0 : ring * Math.sin(angle);
      const add = near ? nearPower(near.design, near.add, beside === 0 ? ring : Math.hypot(px - beside, py)) : 0;
      x[k] = px * (off + halfCylinderLeft) + add * (px - beside);
      y[k] = py * (off - halfCylinderLeft) + add * py;
    }
  }
  // A shift of the whole picture is no blur.
  const mean = (of: Float64Array): number => (beside === 0 ? 0 : of.reduce((a, b) => a + b, 0) / of.length);
  const [mx, my] = [mean(x), mean(y)];
  return x.map((value, i) => 2 * SMITH * Math.hypot(value - mx, (y[i] ?? 0) - my));
}

/** Contrast of letters of each size, 0 to 1, where the far power is off by so much. */
export type ContrastRow = Float64Array;
function contrastRow(lens: LensInPupil, off: Dioptres): ContrastRow {
  const blur = blurs(lens, off);
  const row = new Float64Array(SIZES);
  for (let i = 0; i < SIZES; i++) {
    const detail = 10 ** sizeAt(i);
    let sum = 0;
    for (const b of blur) sum += share(b / detail);
    row[i] = Math.max(0, sum / blur.length);
  }
  return row;
}

/** Far powers this near to each other are taken as one in a forecast of many distances, D. */
const GRID: Dioptres = 0.125;
/** The same, kept: a forecast asks for the same lens again and again. */
export function keptRows(lens: LensInPupil): (off: Dioptres) => ContrastRow {
  const kept = new Map<number, ContrastRow>();
  return (off) => {
    const key = Math.round(off / GRID);
    let row = kept.get(key);
    if (!row) kept.set(key, (row = contrastRow(lens, key * GRID)));
    return row;
  };
}

/** Contrast that letters of a size need, by the eye's best. */
const NEEDED = Float64Array.from({ length: SIZES }, (_, i) => 10 ** (CONTRAST_POWER * sizeAt(i)));

/**
 * The finest letters whose contrast is enough, of one eye or of two together. What both eyes have adds up by squares.
 * @source quadratic summation of contrast: Legge 1984, from memory
 */
export function finestOf(eyes: readonly { readonly row: ContrastRow; readonly best: LogMar }[]): LogMar {
  const scale = eyes.map(({ best }) => 10 ** (-CONTRAST_POWER * best));
  /** Contrast of a size over the contrast that it needs. */
  const spare = (i: number): number => {
    let sum = 0;
    for (let e = 0; e < eyes.length; e++) sum += ((eyes[e]?.row[i] ?? 0) * (scale[e] ?? 0)) ** 2;
    return Math.sqrt(sum) * (NEEDED[i] ?? 0);
  };
  let before = spare(0);
  if (before >= 1) return FINEST;
  for (let i = 1; i < SIZES; i++) {
    const now = spare(i);
    if (now >= 1) return sizeAt(i - 1) + (STEP * (1 - before)) / (now - before);
    before = now;
  }
  return COARSEST;
}

/**
 * Acuity to expect of one eye or a pair at a vergence, nothing accommodated.
 * @param vergence of the object at the cornea, D: 0 far, 2.5 at 40 cm
 * @returns logMAR
 * @example expectedAcuity([{sphereLeft: 0, halfCylinderLeft: 0, near: null, pupilMm: 4, best: 0}], 1) → 0.445
 * @source our own, from Smith 1991 (blur), low-contrast charts (contrast), quadratic summation (both eyes): a model, said so
 */
export const expectedAcuity = (eyes: readonly EyeThroughLens[], vergence: Dioptres): LogMar =>
  finestOf(eyes.map((eye) => ({ row: contrastRow(eye, -eye.sphereLeft - vergence), best: eye.best })));

/** What a wearer may accommodate at a task, D: nothing, half, or all that is comfortable, never beyond the task. */
export function accommodations(vergence: Dioptres, comfortable: Dioptres): readonly Dioptres[] {
  const most = Math.min(comfortable, vergence);
  return most <= 0 ? [0] : [0, most / 2, most];
}

/** One curve: acuity over vergence. */
export interface ThroughFocus {
  readonly vergences: readonly Dioptres[];
  readonly right: readonly LogMar[] | null;
  readonly left: readonly LogMar[] | null;
  readonly both: readonly LogMar[] | null;
}

/** Vergences that are drawn: half a dioptre beyond far, to 25 cm. */
export const VERGENCES: readonly Dioptres[] = Array.from({ length: 37 }, (_, i) => -0.5 + i * 0.125);

/** The curves of each eye, and of the pair where both see. */
export function throughFocus(eyes: Readonly<Record<Eye, EyeThroughLens | null>>, vergences: readonly Dioptres[] = VERGENCES): ThroughFocus {
  const rows = (eye: EyeThroughLens | null) => eye && vergences.map((v) => ({ row: contrastRow(eye, -eye.sphereLeft - v), best: eye.best }));
  const right = rows(eyes.right);
  const left = rows(eyes.left);
  return {
    vergences,
    right: right && right.map((r) => finestOf([r])),
    left: left && left.map((l) => finestOf([l])),
    both: right && left && right.map((r, i) => finestOf([r, ...left.slice(i, i + 1)])),
  };
}
