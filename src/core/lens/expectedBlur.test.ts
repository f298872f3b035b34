import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  blurBetween,
  blurDetail,
  expectedBlur,
  howFarOut,
  linesLost,
  MIDDLE_PUPIL_MM,
  powerOnEye,
  ROTATION_PRIORS,
  type LensBlock,
  type Refraction,
} from '../index';

const r = (sphere: number, cylinder: number, axis: number): Refraction => ({ sphere, cylinder, axis });

describe('blur to expect from a lens that may turn', () => {
  // Computed, and by simulation below: −2.25 with σ 10° leaves √E[u²] 0.387.
  it('−2.25, σ 10°: 0.387 D', () => {
    expect(expectedBlur(r(-3, -2.25, 180), r(-3, -2.25, 180), { mean: 0, sd: 10 })).toBeCloseTo(0.387, 3);
  });
  it('equals the mean over many turns of a lens, tried one by one', () => {
    const need = r(-3.13, -1.59, 20);
    const lens = r(-3, -1.75, 20);
    const sd = 8;
    // Turns out to six SD in steps of a twentieth of a degree, each weighted by the normal curve.
    let sum = 0;
    let weight = 0;
    for (let turn = -48; turn <= 48; turn += 0.05) {
      const p = Math.exp(-(turn * turn) / (2 * sd * sd));
      sum += p * blurBetween(need, powerOnEye(lens, turn)) ** 2;
      weight += p;
    }
    expect(expectedBlur(need, lens, { mean: 0, sd })).toBeCloseTo(Math.sqrt(sum / weight), 4);
  });
  it('without a spread it is the blur of the lens as it sits', () => {
    fc.assert(
      fc.property(fc.integer({ min: -30, max: 30 }), fc.integer({ min: 1, max: 180 }), (turn, axis) => {
        const [need, lens] = [r(-2, -1.5, 100), r(-2.25, -1.25, axis)];
        expect(expectedBlur(need, lens, { mean: turn, sd: 0 })).toBeCloseTo(blurBetween(need, powerOnEye(lens, turn)), 9);
      }),
    );
  });
  it('more spread never expects less blur of the lens that matches; a sphere does not mind', () => {
    for (const { sd } of Object.values(ROTATION_PRIORS)) {
      const at = (s: number): number => expectedBlur(r(-2, -2, 50), r(-2, -2, 50), { mean: 0, sd: s });
      expect(at(sd + 1)).toBeGreaterThan(at(sd));
    }
    expect(expectedBlur(r(-2.1, 0, 180), r(-2, 0, 180), { mean: 10, sd: 10 })).toBeCloseTo(0.1, 9);
  });
  it('a quarter dioptre costs about a line (common practice)', () => {
    expect([0, 0.25, 0.5].map(linesLost)).toEqual([0, 1, 2]);
  });
});

describe('how far out of range', () => {
  const block: LensBlock = {
    spheres: { from: -6, to: 4, step: 0.25 },
    cylinders: [-0.75, -1.25, -1.75],
    axes: { from: 10, to: 180, step: 10 },
    adds: [null],
    curves: [],
  };
  const few: LensBlock = { ...block, axes: { from: 80, to: 100, step: 10 } };
  it.each<[string, Refraction, readonly LensBlock[], object]>([
    ['within', r(-3.13, -1.59, 23), [block], { sphere: 0, cylinder: 0, axis: 0 }],
    ['too much cylinder', r(-3, -3, 20), [block], { cylinder: 1.25, axis: 0 }],
    ['too strong', r(-8, -1.25, 20), [block], { sphere: 2, cylinder: 0 }],
    ['an axis that is not made', r(-3, -1.25, 45), [few], { axis: 35 }],
    ['a sphere family has no cylinder to be past', r(-3, -2, 20), [{ ...block, cylinders: [0] }], { cylinder: 0, axis: 0 }],
  ])('%s', (_name, need, blocks, expected) => {
    expect(howFarOut(need, blocks)).toMatchObject(expected);
  });
  it('smallest detail: 4 mm and 1 D make 2.6′ (Smith 1991, from memory)', () => {
    expect(blurDetail(4, 1)).toBeCloseTo(2.6, 9);
    expect(blurDetail(MIDDLE_PUPIL_MM, 0)).toBe(0);
  });
});
