import fc from 'fast-check';
import { FFT } from 'ml-fft';
import { describe, expect, it } from 'vitest';
import {
  asWearerSees,
  blurDisc,
  chromaticDefocus,
  GREEN,
  looksOf,
  mostBlur,
  nearLeft,
  pointSpread,
  readyLetters,
  seenByPupils,
  squareTransform,
  toPowerVector,
  type PupilSeen,
} from '../../src/core';

const FAR = { vergence: 0 } as const;
const SHARP = { m: 0, j0: 0, j45: 0 } as const;
/** A square's numbers by place, the first in the middle. */
const at = (of: Float64Array, n: number, x: number, y: number): number => of[((y + n) % n) * n + ((x + n) % n)] ?? 0;
/** Spread of a picture of a point along x and along y: standard deviations, minutes of arc. */
function spread(of: Float64Array, n: number, arcmin: number): { readonly x: number; readonly y: number; readonly sum: number } {
  let [sum, xx, yy] = [0, 0, 0];
  for (let y = -n / 2; y < n / 2; y++)
    for (let x = -n / 2; x < n / 2; x++) {
      const v = at(of, n, x, y);
      sum += v;
      xx += v * x * x;
      yy += v * y * y;
    }
  return { x: Math.sqrt(xx / sum) * arcmin, y: Math.sqrt(yy / sum) * arcmin, sum };
}

describe('the transform of a square', () => {
  it('is that of an independent library (ml-fft), there and back', () => {
    fc.assert(
      fc.property(fc.constantFrom(4, 8, 32), fc.infiniteStream(fc.double({ min: -1, max: 1, noNaN: true })), (n, numbers) => {
        const values = Array.from({ length: 2 * n * n }, () => numbers.next().value as number);
        const own = Float64Array.from(values);
        const transform = squareTransform(n);
        transform.forward(own);
        const [real, imaginary] = [
          Float64Array.from({ length: n * n }, (_, i) => values[2 * i] ?? 0),
          Float64Array.from({ length: n * n }, (_, i) => values[2 * i + 1] ?? 0),
        ];
        FFT.init(n);
        FFT.fft2d(real, imaginary);
        for (let i = 0; i < n * n; i++) {
          expect(own[2 * i]).toBeCloseTo(real[i] ?? 9, 9);
          expect(own[2 * i + 1]).toBeCloseTo(imaginary[i] ?? 9, 9);
        }
        transform.inverse(own);
        values.forEach((v, i) => expect(own[i]).toBeCloseTo(v, 9));
      }),
      { numRuns: 12 },
    );
  });
});

describe('a point of light through a pupil', () => {
  const N = 256;
  const transform = squareTransform(N);
  it('without a fault is Airy’s disc: 3 mm, 555 nm, first dark ring at 0.776′ (from memory)', () => {
    const arcmin = 0.05;
    const point = pointSpread(transform, arcmin, { ...FAR, pupilMm: 3, residual: SHARP }, GREEN);
    const across = Array.from({ length: 30 }, (_, i) => at(point, N, i, 0));
    const dark = across.findIndex((v, i) => i > 3 && v < (across[i + 1] ?? 0));
    expect(dark * arcmin).toBeGreaterThan(0.7);
    expect(dark * arcmin).toBeLessThan(0.85);
    expect((across[dark] ?? 1) / (across[0] ?? 1)).toBeLessThan(0.004);
  });
  it.each([
    [4, 2],
    [3, -3],
    [6, 1],
  ])('%s mm and %s D out of focus is the geometric disc: an even disc spreads by a quarter of its width', (pupilMm, m) => {
    const point = pointSpread(transform, 0.25, { ...FAR, pupilMm, residual: { ...SHARP, m } }, GREEN);
    const { x, y, sum } = spread(point, N, 0.25);
    const disc = blurDisc(pupilMm, m) / 4;
    expect(sum).toBeCloseTo(1, 6);
    expect(Math.abs(x / disc - 1)).toBeLessThan(0.06);
    expect(Math.abs(y / disc - 1)).toBeLessThan(0.06);
  });
  it('a cylinder smears along its power: −2.00 × 180 left uncorrected smears up and down, × 90 sideways, × 45 along a slope', () => {
    const of = (axis: number) => {
      const point = pointSpread(transform, 0.25, { ...FAR, pupilMm: 4, residual: toPowerVector({ sphere: 0, cylinder: -2, axis }) }, GREEN);
      let along = 0;
      for (let y = -60; y <= 60; y++) for (let x = -60; x <= 60; x++) along += at(point, N, x, y) * x * y;
      return { ...spread(point, N, 0.25), along };
    };
    expect(of(180).y / of(180).x).toBeGreaterThan(4);
    expect(of(90).x / of(90).y).toBeGreaterThan(4);
    // Power lies at 135 as the axis lies at 45: up to the left as seen, so x and y (downwards) grow together.
    expect(of(45).along).toBeGreaterThan(10);
    expect(of(135).along).toBeLessThan(-10);
  });
  it('near is what far lacks: −2.50 uncorrected is sharp at 40 cm; blue is focused in front (Thibos 1992, from memory)', () => {
    const sharp = spread(pointSpread(transform, 0.25, { vergence: -2.5, pupilMm: 4, residual: { ...SHARP, m: -2.5 } }), N, 0.25);
    const blurred = spread(pointSpread(transform, 0.25, { vergence: -2.5, pupilMm: 4, residual: SHARP }), N, 0.25);
    expect(blurred.x / sharp.x).toBeGreaterThan(3);
    // Between 400 and 700 nm an eye changes by about two dioptres.
    expect(chromaticDefocus(400) - chromaticDefocus(700)).toBeGreaterThan(1.9);
    expect(chromaticDefocus(400) - chromaticDefocus(700)).toBeLessThan(2.2);
    expect(chromaticDefocus(555)).toBe(0);
  });
  it('says up to where a picture holds its blur', () => {
    const disc = blurDisc(4, mostBlur(N, 0.25, 4));
    expect(disc).toBeCloseTo(N * 0.25, 6);
  });
});

describe('letters through two pupils at once', () => {
  const N = 64;
  const ink = new Float32Array(N * N);
  for (let y = 20; y < 40; y++) for (let x = 24; x < 30; x++) ink[y * N + x] = 1;
  const ready = () => readyLetters(squareTransform(N), 0.5, ink);
  const seen = (m: number, pupilMm = 3): PupilSeen => ({ ...FAR, pupilMm, residual: { m, j0: 0.2, j45: -0.3 } });
  it('come back apart, as each would alone; no ink is lost', () => {
    const [a, b] = seenByPupils(ready(), seen(-0.5), seen(1, 4));
    const [again] = seenByPupils(ready(), seen(-0.5), seen(0));
    const [, other] = seenByPupils(ready(), seen(0), seen(1, 4));
    a.forEach((v, i) => expect(v).toBeCloseTo(again[i] ?? 0, 5));
    b.forEach((v, i) => expect(v).toBeCloseTo(other[i] ?? 0, 5));
    const sum = (of: Float32Array) => of.reduce((x, y) => x + y, 0);
    expect(sum(a)).toBeCloseTo(sum(ink), 2);
    expect(sum(b)).toBeCloseTo(sum(ink), 2);
  });
  it('are the letters smeared by the point’s own spread, place by place', () => {
    const transform = squareTransform(N);
    const point = pointSpread(transform, 0.5, seen(-0.5));
    const [picture] = seenByPupils(ready(), seen(-0.5), seen(0));
    for (const [px, py] of [
      [26, 30],
      [31, 22],
      [20, 41],
    ] as const) {
      let plain = 0;
      for (let y = 0; y < N; y++) for (let x = 0; x < N; x++) plain += (ink[y * N + x] ?? 0) * at(point, N, px - x, py - y);
      expect(picture[py * N + px]).toBeCloseTo(plain, 5);
    }
  });
});

describe('what each look leaves', () => {
  it('the lens as it sits, the order that makes up for it, and the order turned by ten: 2·C·sin θ of cylinder', () => {
    const need = { sphere: 0, cylinder: -2.25, axis: 180 };
    const looks = looksOf(need, need, { ...need, axis: 10 }, 10);
    const cylinder = (i: number): number => 2 * Math.hypot(looks[i]?.residual.j0 ?? 9, looks[i]?.residual.j45 ?? 9);
    expect(cylinder(0)).toBe(0);
    // Source: obliquely crossed cylinders; −2.25 turned by 10° leaves 0.78.
    expect(cylinder(1)).toBeCloseTo(0.781, 3);
    expect(cylinder(2)).toBeCloseTo(0, 9);
    expect(cylinder(3)).toBeCloseTo(0.781, 3);
    expect(cylinder(4)).toBeCloseTo(0.781, 3);
    expect(looksOf(need, need, null, 10)).toHaveLength(2);
  });
  it('near by age, and left and right as the wearer sees them', () => {
    expect(nearLeft(20)).toBe(-0);
    expect(nearLeft(60)).toBe(-2.5);
    expect(asWearerSees(asWearerSees({ m: 1, j0: 2, j45: 3 }))).toEqual({ m: 1, j0: 2, j45: 3 });
  });
});
