import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lettersThrough, raysOf } from './lettersThrough';
import type { EyeThroughLens } from './throughFocus';

const EYE: EyeThroughLens = { sphereLeft: 0, halfCylinderLeft: 0, near: null, pupilMm: 4, best: 0 };
const size = 121;
const middle = (size * size - 1) / 2;
/** A single point of ink in the middle. */
const point = (): Float32Array => {
  const ink = new Float32Array(size * size);
  ink[middle] = 1;
  return ink;
};
const sum = (of: Float32Array): number => of.reduce((a, b) => a + b, 0);
/** Half the width of what a point becomes, pixels. */
const reach = (of: Float32Array): number => of.reduce((most, v, i) => (v > 0 ? Math.max(most, Math.abs((i % size) - (size - 1) / 2)) : most), 0);

describe('letters through a lens (geometric optics)', () => {
  it('in focus stay as they are', () => {
    expect(lettersThrough({ width: size, height: size, ink: point() }, 0.5, EYE, 0)[middle]).toBeCloseTo(1, 5);
  });
  it.each([
    // A pupil of 4 mm and a dioptre make a disc of 4 thousandths of a radian, 13.75 minutes of arc: optics.
    [4, 1, 13.75],
    [4, 2, 27.5],
    [3, 1, 10.31],
    [6, 0.5, 10.31],
  ])('a point through a pupil of %d mm, %d D out, becomes a disc of %d minutes of arc', (pupilMm, vergence, disc) => {
    const seen = lettersThrough({ width: size, height: size, ink: point() }, 0.5, { ...EYE, pupilMm }, vergence);
    expect((2 * reach(seen) + 1) * 0.5).toBeGreaterThan(disc * 0.92);
    expect((2 * reach(seen) + 1) * 0.5).toBeLessThan(disc * 1.08);
  });
  it('lose no ink, and the middle stays where it is', () => {
    const lens = fc.record({
      pupilMm: fc.double({ min: 2, max: 6, noNaN: true }),
      sphereLeft: fc.double({ min: -0.75, max: 0.75, noNaN: true }),
      halfCylinderLeft: fc.double({ min: 0, max: 0.5, noNaN: true }),
      near: fc.constantFrom(null, { design: 'centreNear' as const, add: 1 }, { design: 'concentric' as const, add: 1 }),
      decentredMm: fc.constantFrom(0, 0.5),
      best: fc.constant(0),
    });
    fc.assert(
      fc.property(lens, (eye) => {
        const { dx, dy } = raysOf(eye, -eye.sphereLeft);
        expect(dx.reduce((a, b) => a + b, 0) / dx.length).toBeCloseTo(0, 6);
        expect(dy.reduce((a, b) => a + b, 0) / dy.length).toBeCloseTo(0, 6);
        expect(sum(lettersThrough({ width: size, height: size, ink: point() }, 1, eye, 0))).toBeCloseTo(1, 3);
      }),
      { numRuns: 60 },
    );
  });
  it('a near lens gives at near what it takes at far', () => {
    const through = (near: EyeThroughLens['near'], vergence: number) =>
      lettersThrough({ width: size, height: size, ink: point() }, 0.5, { ...EYE, pupilMm: 3, near }, vergence)[middle] ?? 0;
    const lens = { design: 'centreNear' as const, add: 2 };
    expect(through(lens, 2)).toBeGreaterThan(through(null, 2));
    expect(through(lens, 0)).toBeLessThan(through(null, 0));
  });
});
