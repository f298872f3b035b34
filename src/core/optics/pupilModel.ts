import type { Dioptres, Millimetres } from '../units';
import type { ComplexSquare, SquareTransform } from './fft2';
import type { PowerVector } from './powerVector';

/** A minute of arc, radians. */
const ARCMIN = Math.PI / (180 * 60);

/** A colour of light: wavelength, nm, and how much of what is seen it makes. */
export interface Colour {
  readonly nm: number;
  readonly weight: number;
}
/** White light, in three colours. @source photopic luminosity V(λ), CIE 1924, of an equal-energy white; from memory */
export const WHITE: readonly Colour[] = [
  { nm: 500, weight: 0.323 },
  { nm: 555, weight: 1 },
  { nm: 620, weight: 0.381 },
];
/** The one colour the eye is brightest for. */
export const GREEN: readonly Colour[] = [{ nm: 555, weight: 1 }];

/**
 * How much stronger an eye is for a colour than for the one it is focused for, D: blue is seen in front, red behind.
 * @example Math.round(chromaticDefocus(500) * 100) / 100 → 0.36
 * @source the chromatic eye, Thibos, Ye, Zhang & Bradley 1992: 633.46 / (λ − 214.102); from memory
 */
export const chromaticDefocus = (nm: number): Dioptres => CHROMATIC / (nm - CHROMATIC_POLE) - CHROMATIC / (FOCUSED_NM - CHROMATIC_POLE);
const CHROMATIC = 633.46;
const CHROMATIC_POLE = 214.102;
const FOCUSED_NM = 555;

/** An eye's pupil, and what lies uncorrected in it. */
export interface PupilSeen {
  readonly pupilMm: Millimetres;
  /** What the eye still asks for, D. */
  readonly residual: PowerVector;
  /** Vergence of what is looked at, D: 0 far, −2.5 at 40 cm; what the eye accommodates is taken off it. */
  readonly vergence: Dioptres;
}

/** The widest blur that a picture of n pixels holds without folding over, D, for a pupil in mm. @example Math.round(mostBlur(256, 0.25, 4) * 10) / 10 → 4.7 */
export const mostBlur = (n: number, arcminPerPixel: number, pupilMm: Millimetres): Dioptres => (n * arcminPerPixel * ARCMIN) / (pupilMm / 1000);

/** Adds the intensity that one colour throws, from the light in the pupil. */
function addColour(
  transform: SquareTransform,
  room: ComplexSquare,
  arcminPerPixel: number,
  seen: PupilSeen,
  { nm, weight }: Colour,
  into: Float64Array,
  step: 1 | 2,
): void {
  const { n } = transform;
  const lambda = nm * 1e-9;
  // The picture's pixel is the same for every colour: so the pupil's is not.
  const dx = lambda / (n * arcminPerPixel * ARCMIN);
  const radius = seen.pupilMm / 2000;
  const { m, j0, j45 } = seen.residual;
  // A residual of −1 D is an eye too strong by 1 D; light that diverges makes it seem weaker.
  const mean = m + seen.vergence * -1 - chromaticDefocus(nm);
  const wave = Math.PI / lambda;
  room.fill(0);
  const half = Math.min(n / 2 - 1, Math.ceil(radius / dx));
  let inside = 0;
  for (let py = -half; py <= half; py++)
    for (let px = -half; px <= half; px++) {
      const [x, y] = [px * dx, py * dx];
      if (x * x + y * y > radius * radius) continue;
      inside++;
      // Half the power times the square of the distance, along each meridian; y grows downwards, axes anticlockwise.
      const phase = wave * (mean * (x * x + y * y) + j0 * (x * x - y * y) - 2 * j45 * x * y);
      const at = 2 * (((py + n) % n) * n + ((px + n) % n));
      room[at] = Math.cos(phase);
      room[at + 1] = Math.sin(phase);
    }
  transform.forward(room);
  const scale = weight / (inside * n * n);
  for (let i = 0; i < n * n; i++) into[i * step] = (into[i * step] ?? 0) + scale * ((room[2 * i] ?? 0) ** 2 + (room[2 * i + 1] ?? 0) ** 2);
}

/**
 * How a point of light is spread, n² shares that add up to 1, the point itself at the first; right and down first, what lies left or above wraps round.
 * @param arcminPerPixel size of a pixel, minutes of arc
 * @source Fraunhofer diffraction: the intensity is the square of the Fourier transform of the light in the pupil (Goodman, Introduction to Fourier Optics; from memory)
 */
export function pointSpread(transform: SquareTransform, arcminPerPixel: number, seen: PupilSeen, light: readonly Colour[] = WHITE): Float64Array {
  const { n } = transform;
  const into = new Float64Array(n * n);
  addLight(transform, new Float64Array(2 * n * n), arcminPerPixel, seen, light, into, 1);
  return into;
}

/** Adds a point's spread to every number of a square, or to every second. */
function addLight(
  transform: SquareTransform,
  room: ComplexSquare,
  arcmin: number,
  seen: PupilSeen,
  light: readonly Colour[],
  into: Float64Array,
  step: 1 | 2,
): void {
  const total = light.reduce((sum, c) => sum + c.weight, 0);
  for (const colour of light) addColour(transform, room, arcmin, seen, { ...colour, weight: colour.weight / total }, into, step);
}

/** Letters ready to be looked at: their transform is made once. */
export interface LettersReady {
  readonly transform: SquareTransform;
  readonly arcminPerPixel: number;
  readonly spectrum: ComplexSquare;
  readonly room: ComplexSquare;
  readonly both: ComplexSquare;
}

/** Transforms letters once for all looks. @param ink n² densities, 0 paper to 1 */
export function readyLetters(transform: SquareTransform, arcminPerPixel: number, ink: Float32Array): LettersReady {
  const { n } = transform;
  const spectrum = new Float64Array(2 * n * n);
  ink.forEach((v, i) => (spectrum[2 * i] = v));
  transform.forward(spectrum);
  return { transform, arcminPerPixel, spectrum, room: new Float64Array(2 * n * n), both: new Float64Array(2 * n * n) };
}

/**
 * Letters as two pupils see them: far and near, say. The spreads of both points go through one transform, one as its real and one as its imaginary part:
 * letters and light are real, so they come back apart.
 * @returns densities of both pictures, n² each
 */
export function seenByPupils(
  { transform, arcminPerPixel, spectrum, room, both }: LettersReady,
  one: PupilSeen,
  other: PupilSeen,
): readonly [Float32Array, Float32Array] {
  const { n } = transform;
  both.fill(0);
  addLight(transform, room, arcminPerPixel, one, WHITE, both, 2);
  addLight(transform, room, arcminPerPixel, other, WHITE, both.subarray(1), 2);
  transform.forward(both);
  for (let i = 0; i < 2 * n * n; i += 2) {
    const [ar, ai, br, bi] = [both[i] ?? 0, both[i + 1] ?? 0, spectrum[i] ?? 0, spectrum[i + 1] ?? 0];
    both[i] = ar * br - ai * bi;
    both[i + 1] = ar * bi + ai * br;
  }
  transform.inverse(both);
  const pictures = [new Float32Array(n * n), new Float32Array(n * n)] as const;
  for (let i = 0; i < n * n; i++) {
    pictures[0][i] = both[2 * i] ?? 0;
    pictures[1][i] = both[2 * i + 1] ?? 0;
  }
  return pictures;
}
/** Transforms that a pair of looks needs: one a colour and pupil, one there and one back. */
export const TRANSFORMS_A_PAIR = 2 * WHITE.length + 2;
