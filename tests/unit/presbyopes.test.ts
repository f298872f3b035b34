import { describe, expect, it } from 'vitest';
import { chanceFrom } from '../../src/lib/chance';
import { besselJ0, contrasts, lettersThrough } from '../../scripts/lib/presbyopes/light';
import { PERTURBED, USUAL } from '../../scripts/lib/presbyopes/ranges';
import { drawWearer } from '../../scripts/lib/presbyopes/wearer';
import { served, taskTruth, type SimLens, type SimPair } from '../../scripts/lib/presbyopes/world';

const reads = (error: number, pupilMm: number): number => lettersThrough(contrasts({ error: () => error, halfCylinder: 0, pupilMm }), 0);
const lens = (offset: number, power: number): SimLens => ({ offset, near: { design: 'centreNear', power }, toric: false });
const pairOf = (offset: number, power: number): SimPair => ({ right: lens(offset, power), left: lens(offset, power) });

describe('the made-up presbyopes', () => {
  it('their light: J₀ is the mean of a cosine round a circle', () => {
    const n = 720;
    for (const x of [0, 0.5, 1, 2.4048, 2.9, 3.1, 5, 8.6537, 20]) {
      let sum = 0;
      for (let i = 0; i < n; i++) sum += Math.cos(x * Math.sin((2 * Math.PI * (i + 0.5)) / n));
      expect(besselJ0(x)).toBeCloseTo(sum / n, 6);
    }
  });
  it('read about 20/16 without blur, and through blur what Smith 1991 says (MAR ≈ 0.65 · pupil · D, from memory)', () => {
    for (const pupil of [3, 4, 5, 6]) {
      expect(reads(0, pupil)).toBeGreaterThan(-0.2);
      expect(reads(0, pupil)).toBeLessThan(-0.08);
      for (const blur of [1, 1.5, 2]) expect(Math.abs(reads(blur, pupil) - Math.log10(0.65 * pupil * blur))).toBeLessThan(0.06);
    }
  });
  it('see worse at the phone without a near zone, and better with one', () => {
    const chance = chanceFrom(3);
    let better = 0;
    for (let i = 0; i < 40; i++) {
      const wearer = drawWearer(chance, PERTURBED['oldPresbyopes'] ?? USUAL);
      const without = taskTruth(wearer, pairOf(0, 0), 'phone').acuity;
      if (taskTruth(wearer, pairOf(0, 2.25), 'phone').acuity < without - 0.1) better++;
    }
    expect(better).toBeGreaterThan(35);
  });
  it('are neither all served by the first pair nor beyond help in any of the bent worlds', () => {
    for (const [name, ranges] of Object.entries(PERTURBED)) {
      const chance = chanceFrom(11);
      let first = 0;
      const n = 40;
      for (let i = 0; i < n; i++) {
        const wearer = drawWearer(chance, ranges);
        const power = wearer.measuredAdd < 1.375 ? 1 : wearer.measuredAdd < 2.125 ? 1.75 : 2.25;
        if (served(wearer, pairOf(0, power))) first++;
      }
      expect(first, name).toBeGreaterThan(n * 0.1);
      expect(first, name).toBeLessThan(n * 0.95);
    }
  });
  it('the same seed draws the same people', () => {
    expect(drawWearer(chanceFrom(5), USUAL)).toEqual(drawWearer(chanceFrom(5), USUAL));
  });
});
