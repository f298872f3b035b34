import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS, knownMean, LOOK_WITHIN, seriesStats, withKnown, type KnownTurn } from '../index';

const known = (...readings: number[]): KnownTurn => ({ lensOnEyeId: 'on', at: '2025-11-24T10:00:00Z', readings });
const turn = fc.integer({ min: -60, max: 60 });

describe('a turn known from an earlier visit', () => {
  it('is known where it was read in full and was stable', () => {
    expect(knownMean(known(10, 9, 11), DEFAULT_SETTINGS, -1.75)).toBe(10);
  });
  it('is not known from two readings, from three that scatter, or from a lens that never came to rest', () => {
    expect(knownMean(known(10, 10), DEFAULT_SETTINGS, -1.75)).toBeNull();
    expect(knownMean(known(2, 10, 20), DEFAULT_SETTINGS, -1.75)).toBeNull();
    expect(knownMean(known(-15, 20, -10, 18, 2), DEFAULT_SETTINGS, -2.25)).toBeNull();
  });
  it('a school that always reads five knows nothing from three', () => {
    expect(knownMean(known(10, 9, 11), { ...DEFAULT_SETTINGS, blinkSchool: 'alwaysFive' }, -1.75)).toBeNull();
  });
  it('one look that finds the mark there counts with what was read; one that finds it elsewhere stands alone', () => {
    expect(withKnown([10 + LOOK_WITHIN], 10, [10, 9, 11])).toEqual([10, 9, 11, 10 + LOOK_WITHIN]);
    expect(withKnown([10 + LOOK_WITHIN + 1], 10, [10, 9, 11])).toEqual([10 + LOOK_WITHIN + 1]);
  });
  it('nothing is known without a look today, and three readings of today need no help', () => {
    expect(withKnown([], 10, [10, 9, 11])).toEqual([]);
    expect(withKnown([10, 10, 10], 10, [9, 9, 9])).toEqual([10, 10, 10]);
  });
  it('left and right are mirror images', () => {
    fc.assert(
      fc.property(fc.array(turn, { minLength: 3, maxLength: 6 }), turn, (readings, look) => {
        const mirrored = readings.map((r) => -r);
        const mean = knownMean(known(...readings), DEFAULT_SETTINGS, -1.75);
        const other = knownMean(known(...mirrored), DEFAULT_SETTINGS, -1.75);
        expect(other === null ? null : -other + 0).toEqual(mean === null ? null : mean + 0);
        expect(withKnown([-look], mean === null ? null : -mean, mirrored)).toEqual(withKnown([look], mean, readings).map((r) => -r));
      }),
    );
  });
  it('what one look confirms never moves the mean by more than the look is off', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 8, max: 12 }), { minLength: 3, maxLength: 5 }), fc.integer({ min: 5, max: 15 }), (readings, look) => {
        const { mean } = seriesStats(readings, 2);
        const all = withKnown([look], mean, readings);
        if (all.length > 1) expect(Math.abs(seriesStats(all, 2).mean - mean)).toBeLessThanOrEqual(LOOK_WITHIN / all.length + 1e-9);
      }),
    );
  });
});
