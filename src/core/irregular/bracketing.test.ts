import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { axisDistance, middleOfBlur, wrapAxis } from '../index';

const axisOf = (a: number, b: number, start: number | null): number => {
  const found = middleOfBlur(a, b, start);
  if (!found.ok) throw new Error(found.problem);
  return found.axis;
};
const axis = fc.integer({ min: 1, max: 180 });

describe('the axis between two blur points (worked cases: common practice)', () => {
  it.each([
    [110, 40, null, 75],
    [110, 40, 75, 75],
    [50, 150, 8, 10],
    [150, 50, 8, 10],
    // Without the start the shorter way round is taken: here it is the same.
    [50, 150, null, 10],
    // The start lies on the longer way: 100, not 10.
    [50, 150, 95, 100],
    [170, 30, null, 10],
    [175, 5, 180, 180],
    [0, 40, 20, 20],
  ])('%i and %i, started at %s → %i', (a, b, start, expected) => expect(axisOf(a, b, start)).toBe(expected));
  it('two points 90° apart: only the start decides', () => {
    expect(middleOfBlur(30, 120, null)).toEqual({ ok: false, problem: 'startNeeded' });
    expect(axisOf(30, 120, 70)).toBe(75);
    expect(axisOf(30, 120, 160)).toBe(165);
  });
  it('the same point twice, or what is no axis, is no answer', () => {
    expect(middleOfBlur(40, 40, 10)).toEqual({ ok: false, problem: 'tooClose' });
    expect(middleOfBlur(180, 0, 10)).toEqual({ ok: false, problem: 'tooClose' });
    for (const bad of [-1, 181, Number.NaN]) expect(middleOfBlur(bad, 40, null)).toEqual({ ok: false, problem: 'notAnAxis' });
  });
  it('is as far from the one as from the other, whichever was found first', () => {
    fc.assert(
      fc.property(axis, axis, axis, (a, b, start) => {
        fc.pre(axisDistance(a, b) >= 1);
        const middle = axisOf(a, b, start);
        expect(axisDistance(middle, a)).toBeCloseTo(axisDistance(middle, b), 9);
        expect(axisDistance(middle, axisOf(b, a, start)) % 90).toBeCloseTo(0, 9);
      }),
    );
  });
  it('what turns with the eye turns the answer with it', () => {
    fc.assert(
      fc.property(axis, axis, axis, fc.integer({ min: 0, max: 179 }), (a, b, start, by) => {
        fc.pre(axisDistance(a, b) >= 1 && axisDistance(start, a) > 0 && axisDistance(start, b) > 0);
        expect(axisDistance(axisOf(wrapAxis(a + by), wrapAxis(b + by), wrapAxis(start + by)), wrapAxis(axisOf(a, b, start) + by))).toBeCloseTo(0, 9);
      }),
    );
  });
  it('finds the axis that a wearer has who blurs as far off on either side', () => {
    fc.assert(
      fc.property(axis, fc.integer({ min: 5, max: 85 }), fc.integer({ min: -4, max: 4 }), (real, off, started) => {
        expect(axisDistance(axisOf(wrapAxis(real - off), wrapAxis(real + off), wrapAxis(real + started)), real)).toBeCloseTo(0, 9);
      }),
    );
  });
});
