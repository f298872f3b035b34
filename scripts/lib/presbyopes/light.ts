/**
 * How well a made-up eye sees: rays through rings of the pupil, the contrast that gets through at each fineness of detail, and
 * the finest that still beats a threshold. It is another physics than the product's own forecast on purpose.
 */

/** Bessel function J₀. Source: Abramowitz and Stegun 9.4.1 and 9.4.3, from memory; checked against its integral in a test. */
export function besselJ0(x: number): number {
  const ax = Math.abs(x);
  if (ax < 3) {
    const y = (ax / 3) ** 2;
    return 1 + y * (-2.2499997 + y * (1.2656208 + y * (-0.3163866 + y * (0.0444479 + y * (-0.0039444 + y * 0.00021)))));
  }
  const z = 3 / ax;
  const f = 0.79788456 + z * (-0.00000077 + z * (-0.0055274 + z * (-0.00009512 + z * (0.00137237 + z * (-0.00072805 + z * 0.00014476)))));
  const t = ax - 0.78539816 + z * (-0.04166397 + z * (-0.00003954 + z * (0.00262573 + z * (-0.00054125 + z * (-0.00029333 + z * 0.00013558)))));
  return (f * Math.cos(t)) / Math.sqrt(ax);
}

const RINGS = 20;
const DIRECTIONS = [Math.PI / 8, (3 * Math.PI) / 8, (5 * Math.PI) / 8, (7 * Math.PI) / 8];
/** Fineness of detail looked at, cycles per degree, from coarse to fine. */
const FINENESS = Array.from({ length: 26 }, (_, i) => 2 * 1.15 ** i);

/** What one eye does to light from one distance. */
export interface Blur {
  /** Error of power at a ring of the pupil, D, by its radius in mm. */
  readonly error: (ringMm: number) => number;
  /** Half the cylinder that is left, D. */
  readonly halfCylinder: number;
  readonly pupilMm: number;
}

/** Contrast that gets through, by fineness. The Stiles–Crawford effect dims the rim (0.05 / mm², from memory). */
export function contrasts({ error, halfCylinder, pupilMm }: Blur): Float64Array {
  const out = new Float64Array(FINENESS.length);
  const edge = pupilMm / 2;
  let sum = 0;
  const weights: number[] = [];
  const reach: number[] = [];
  for (let i = 0; i < RINGS; i++) {
    const ring = edge * Math.sqrt((i + 0.5) / RINGS);
    const w = 10 ** (-0.05 * ring * ring);
    sum += w;
    weights.push(w);
    const e = error(ring);
    for (const d of DIRECTIONS) reach.push((ring / 1000) * Math.sqrt(e * e + halfCylinder * halfCylinder + 2 * e * halfCylinder * Math.cos(d)));
  }
  const per = (180 / Math.PI) * 2 * Math.PI;
  // A diffraction-limited eye of this pupil, and the eye's own scatter, as one smooth fall. 555 nm.
  const limit = (edge * 2e-3) / 555e-9 / (180 / Math.PI);
  for (let f = 0; f < FINENESS.length; f++) {
    const fine = FINENESS[f] ?? 0;
    let through = 0;
    for (let d = 0; d < DIRECTIONS.length; d++) {
      let one = 0;
      for (let i = 0; i < RINGS; i++) one += (weights[i] ?? 0) * besselJ0(per * fine * (reach[i * DIRECTIONS.length + d] ?? 0));
      through += Math.max(0, one / sum);
    }
    out[f] = (through / DIRECTIONS.length) * Math.max(0, 1 - fine / limit) * Math.exp(-fine / 45);
  }
  return out;
}

/** Contrast that is needed at a fineness: it doubles each 3.6 cycles per degree. */
const needed = (fine: number): number => 0.01 * 2 ** (fine / 3.6);
/** Minutes of arc × cycles per degree at which letters are told apart: 1.2 cycles a letter. */
const LETTER = 14.4;
const WORST = 1.1;

/**
 * Letters read through a contrast: the finest detail still above the threshold, logMAR. Both figures are set so that a sharp eye
 * reads about −0.1 and a blurred one what Smith 1991 says (MAR ≈ 0.65 · pupil · D, from memory).
 */
export function lettersThrough(contrast: Float64Array, best: number): number {
  const shift = 10 ** best;
  const spare = (f: number): number => Math.max((contrast[f] ?? 0) / needed((FINENESS[f] ?? 0) * shift), 1e-6);
  const at = FINENESS.findIndex((_, f) => spare(f) < 1);
  if (at === 0) return WORST;
  const fine = FINENESS[at] ?? 0;
  const before = FINENESS[at - 1] ?? 0;
  const part = Math.log(spare(at - 1)) / (Math.log(spare(at - 1)) - Math.log(spare(at)));
  return Math.min(WORST, Math.log10(LETTER / (before * (fine / before) ** part)));
}
