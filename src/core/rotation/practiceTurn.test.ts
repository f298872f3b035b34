import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ASSUMED_EYES, shrunkTurn } from './practiceTurn';

const assumed = { mean: 0, sd: 6 };
const own = fc.record({ mean: fc.integer({ min: -30, max: 30 }), sd: fc.integer({ min: 0, max: 20 }), eyes: fc.integer({ min: 1, max: 500 }) });

describe('the practice’s own rotation', () => {
  it('without an eye it is what is assumed; with as many as that counts for, half of each', () => {
    expect(shrunkTurn(null, assumed)).toEqual(assumed);
    expect(shrunkTurn({ mean: 8, sd: 3, eyes: 0 }, assumed)).toEqual(assumed);
    expect(shrunkTurn({ mean: 8, sd: 6, eyes: ASSUMED_EYES }, assumed).mean).toBe(4);
  });
  it('lies between the two, and comes nearer to its own with every eye', () => {
    fc.assert(
      fc.property(own, (of) => {
        const { mean } = shrunkTurn(of, assumed);
        expect(Math.abs(mean)).toBeLessThanOrEqual(Math.abs(of.mean));
        expect(Math.abs(shrunkTurn({ ...of, eyes: of.eyes + 1 }, assumed).mean - of.mean)).toBeLessThanOrEqual(Math.abs(mean - of.mean) + 1e-12);
      }),
    );
  });
  it('one odd eye widens the spread rather than to move the mean far; many eyes bring their own', () => {
    const odd = shrunkTurn({ mean: 25, sd: 0, eyes: 1 }, assumed);
    expect(odd.mean).toBeLessThan(2.5);
    expect(odd.sd).toBeGreaterThan(assumed.sd);
    const many = shrunkTurn({ mean: 5, sd: 3, eyes: 1000 }, assumed);
    expect(many.mean).toBeCloseTo(5, 0);
    expect(many.sd).toBeCloseTo(3, 0);
  });
});
