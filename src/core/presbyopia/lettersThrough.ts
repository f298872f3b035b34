import type { Dioptres, Eye } from '../units';
import { nearPower } from './powerProfile';
import { throughFocus, type EyeThroughLens, type LensInPupil, type ThroughFocus } from './throughFocus';

/** A picture of letters: ink from 0 (paper) to 1, row by row. */
export interface Ink {
  readonly width: number;
  readonly height: number;
  readonly ink: Float32Array;
}

/** An angle of a ray behind the pupil for each mm and dioptre, minutes of arc: a thousandth of a radian. Source: geometric optics. */
const RAY = (180 * 60) / (Math.PI * 1000);
const RINGS = 16;
const AROUND = 16;

/** Where each part of the pupil throws a point of light, minutes of arc; a shift of the whole picture is left out. */
export function raysOf(lens: LensInPupil, off: Dioptres): { readonly dx: Float64Array; readonly dy: Float64Array } {
  const count = RINGS * AROUND;
  const dx = new Float64Array(count);
  const dy = new Float64Array(count);
  const beside = lens.decentredMm ?? 0;
  const { near, halfCylinderLeft } = lens;
  for (let i = 0, k = 0; i < RINGS; i++) {
    // Rings of one area each.
    const ring = (lens.pupilMm / 2) * Math.sqrt((i + 0.5) / RINGS);
    for (let a = 0; a < AROUND; a++, k++) {
      const angle = ((a + 0.5 + (i % 2) / 2) * 2 * Math.PI) / AROUND;
      const [px, py] = [ring * Math.cos(angle), ring * Math.sin(angle)];
      const add = near ? nearPower(near.design, near.add, Math.hypot(px - beside, py)) : 0;
      dx[k] = RAY * (px * (off + halfCylinderLeft) + add * (px - beside));
      dy[k] = RAY * (py * (off - halfCylinderLeft) + add * py);
    }
  }
  const mean = (of: Float64Array): number => of.reduce((a, b) => a + b, 0) / count;
  const [mx, my] = [mean(dx), mean(dy)];
  return { dx: dx.map((v) => v - mx), dy: dy.map((v) => v - my) };
}

/**
 * Letters as an eye would see them through its lens, nothing accommodated: the picture thrown by every part of the pupil, added up.
 * Diffraction, colour and what the two eyes make of it together are not in it.
 * @param arcminPerPixel size of a pixel, minutes of arc
 * @param vergence of the letters at the cornea, D
 * @example lettersThrough({width: 1, height: 1, ink: new Float32Array([1])}, 1, {sphereLeft: 0, halfCylinderLeft: 0, near: null, pupilMm: 4, best: 0}, 0)[0] → 1
 * @source geometric optics; the lens: see nearPower
 */
export function lettersThrough({ width, height, ink }: Ink, arcminPerPixel: number, eye: EyeThroughLens, vergence: Dioptres): Float32Array {
  const { dx, dy } = raysOf(eye, -eye.sphereLeft - vergence);
  const seen = new Float32Array(width * height);
  // Rays that fall on one pixel are added once.
  const shifts = new Map<string, number>();
  for (let k = 0; k < dx.length; k++) {
    const key = `${Math.round((dx[k] ?? 0) / arcminPerPixel)} ${Math.round((dy[k] ?? 0) / arcminPerPixel)}`;
    shifts.set(key, (shifts.get(key) ?? 0) + 1 / dx.length);
  }
  for (const [key, weight] of shifts) {
    const [sx = 0, sy = 0] = key.split(' ').map(Number);
    for (let y = Math.max(0, sy); y < Math.min(height, height + sy); y++) {
      const from = (y - sy) * width - sx;
      const to = y * width;
      for (let x = Math.max(0, sx); x < Math.min(width, width + sx); x++) seen[to + x] = (seen[to + x] ?? 0) + weight * (ink[from + x] ?? 0);
    }
  }
  return seen;
}

/** Curves of a pair, and letters at each of some distances as each eye alone would see them. */
export interface SeenThrough {
  readonly curves: ThroughFocus;
  /** By eye, in the order of the distances. */
  readonly letters: Readonly<Record<Eye, readonly Float32Array[]>>;
}
/** What is asked of a pair: its eyes, and the distances whose letters are wanted, D. */
export interface ToSee {
  readonly eyes: Readonly<Record<Eye, EyeThroughLens>>;
  readonly vergences: readonly Dioptres[];
}

/** Curves and letters together. @param arcminPerPixel size of a pixel, minutes of arc */
export function seenThrough({ eyes, vergences }: ToSee, picture: Ink, arcminPerPixel: number): SeenThrough {
  const letters = (eye: Eye) => vergences.map((v) => lettersThrough(picture, arcminPerPixel, eyes[eye], v));
  return { curves: throughFocus(eyes), letters: { right: letters('right'), left: letters('left') } };
}
