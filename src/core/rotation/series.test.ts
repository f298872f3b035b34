import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  DEFAULT_SETTINGS,
  parseRotation,
  readingsWanted,
  scaleFromDrawings,
  seriesStats,
  steadinessLimit,
  turnCost,
  turnFromScale,
  unsteadiness,
  type InstrumentScale,
} from '../index';

describe('a series of blinks', () => {
  it('mean, SD and slope (values computed)', () => {
    expect(seriesStats([10, 8, 11, 10, 11], 2)).toMatchObject({ count: 5, mean: 10, slope: 0.4 });
    expect(seriesStats([10, 8, 11, 10, 11], 2).sd).toBeCloseTo(1.2247, 4);
    expect(seriesStats([10, 8, 11, 10, 11], 2).lensSd).toBe(0);
    expect(seriesStats([0, 10, 20], 2).lensSd).toBeCloseTo(Math.sqrt(96), 9);
    expect(seriesStats([7], 2)).toEqual({ count: 1, mean: 7, sd: null, lensSd: null, slope: null, slopeError: null });
  });
  it('reading backwards turns the slope, and nothing else', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -90, max: 90 }), { minLength: 2, maxLength: 12 }), (readings) => {
        const [a, b] = [seriesStats(readings, 2), seriesStats([...readings].reverse(), 2)];
        expect(b.mean).toBeCloseTo(a.mean, 9);
        expect(b.sd).toBeCloseTo(a.sd ?? 0, 9);
        expect((b.slope ?? 0) + (a.slope ?? 0)).toBeCloseTo(0, 9);
      }),
    );
  });
  it('the error of a slope (values computed)', () => {
    // 4, 7, 9, 12, 15: slope 2.7, residual squares 0.30 over 3 degrees of freedom, spread 10.
    expect(seriesStats([4, 7, 9, 12, 15], 2).slope).toBeCloseTo(2.7, 9);
    expect(seriesStats([4, 7, 9, 12, 15], 2).slopeError).toBeCloseTo(Math.sqrt(0.3 / 3 / 10), 9);
  });
  // Values computed: 0.15 D rms through C·sin θ; held at 4° from below and 12° from above.
  it.each([
    [-0.75, 11.7],
    [-1.25, 6.9],
    [-1.75, 4.9],
    [-2.25, 4],
    [-4, 4],
    [-0.5, 12],
    [0, 12],
  ])('a cylinder of %d D makes a lens unsteady from %d°', (cylinder, limit) => {
    expect(steadinessLimit(cylinder, 0.15)).toBeCloseTo(limit, 1);
  });
  it('at the floor of 4° strong cylinders lose more: 0.19 D at −2.75, 0.28 at −4.00 (values computed)', () => {
    const rms = (cylinder: number): number => Math.abs(cylinder) * Math.sqrt((1 - Math.exp(-2 * ((4 * Math.PI) / 180) ** 2)) / 2);
    expect(rms(-2.75)).toBeCloseTo(0.19, 2);
    expect(rms(-4)).toBeCloseTo(0.28, 2);
  });
  it('three blinks, and five where the three scatter', () => {
    const wanted = (readings: number[], school: 'threeThenFive' | 'alwaysFive' = 'threeThenFive') =>
      readingsWanted(readings.length === 0 ? null : seriesStats(readings, 2), -1.75, { ...DEFAULT_SETTINGS, blinkSchool: school });
    expect(wanted([])).toBe(3);
    expect(wanted([10])).toBe(3);
    expect(wanted([10, 9, 11])).toBe(3);
    // SD 3.0 is past 0.6 × 4.9.
    expect(wanted([10, 7, 13])).toBe(5);
    expect(wanted([10, 10, 10], 'alwaysFive')).toBe(5);
  });
  it('unsteady, drifting and slow, in that order, by what it costs this cylinder', () => {
    const why = (readings: number[], cylinder = -1.75, recovery: number | null = null) =>
      unsteadiness(seriesStats(readings, 2), recovery, DEFAULT_SETTINGS, cylinder);
    expect(why([10, 8, 11, 10, 11])).toBeNull();
    expect(why([0, 12, -3, 15, 4])).toBe('unsteady');
    expect(why([0, 12, -3, 15, 4], -0.5)).toBeNull();
    expect(why([4, 7, 9, 12, 15])).toBe('drifting');
    expect(why([4, 7, 9, 12, 15], -0.75)).toBeNull();
    expect(why([10, 10, 10, 10, 10], -1.75, 65)).toBe('slow');
    expect(why([10, 10, 10, 10, 10], -1.75, 60)).toBeNull();
    // A line through three readings is mostly noise.
    expect(why([4, 7, 10])).toBeNull();
    // A slope inside its own error is no drift.
    expect(why([5, 9, 4, 12, 8])).not.toBe('drifting');
  });
  // Source: obliquely crossed cylinders; 0.25 D of cylinder is left at 9.6°, 5.7°, 4.1°, 3.2°, 1.4° for 0.75 … 5.00 (computed).
  it.each([
    [0.75, 9.6],
    [1.25, 5.7],
    [1.75, 4.1],
    [2.25, 3.2],
    [5, 1.4],
  ])('a cylinder of %d D turned %d° leaves 0.25 D of cylinder', (cylinder, turn) => {
    expect(turnCost(-cylinder, turn).cylinder).toBeCloseTo(0.25, 1);
    expect(turnCost(-cylinder, turn).blur * 2).toBeCloseTo(turnCost(-cylinder, turn).cylinder, 12);
  });
});

describe('scales of slit lamps', () => {
  it('100 is 10 to the left on one instrument and 10 to the right on another (common practice)', () => {
    expect(turnFromScale(100, { zero: 90, grows: 'left' }, 'six')).toBe(10);
    expect(turnFromScale(100, { zero: 90, grows: 'right' }, 'six')).toBe(-10);
  });
  it('zero at vertical; across the end of the scale', () => {
    expect(turnFromScale(10, { zero: 0, grows: 'left' }, 'six')).toBe(10);
    expect(turnFromScale(170, { zero: 0, grows: 'left' }, 'six')).toBe(-10);
    expect(turnFromScale(0, { zero: 180, grows: 'left' }, 'six')).toBe(0);
    expect(turnFromScale(5, { zero: 175, grows: 'left' }, 'twelve')).toBe(10);
  });
  it('marks at 3 and 9 are read with the beam lying across', () => {
    expect(turnFromScale(10, { zero: 90, grows: 'left' }, 'threeNine')).toBe(10);
    expect(turnFromScale(190 - 180, { zero: 90, grows: 'left' }, 'threeNine')).toBe(10);
    expect(turnFromScale(170, { zero: 90, grows: 'right' }, 'threeNine')).toBe(10);
  });
  it('two drawn marks say where a scale begins and which way it counts', () => {
    expect(scaleFromDrawings(90, 110)).toEqual({ ok: true, value: { zero: 90, grows: 'left' } });
    expect(scaleFromDrawings(90, 70)).toEqual({ ok: true, value: { zero: 90, grows: 'right' } });
    expect(scaleFromDrawings(0, 160)).toEqual({ ok: true, value: { zero: 0, grows: 'right' } });
    expect(scaleFromDrawings(180, 20)).toEqual({ ok: true, value: { zero: 0, grows: 'left' } });
    expect(scaleFromDrawings(90, 92)).toMatchObject({ ok: false, error: { code: 'scaleNotApart', data: { apart: 2 } } });
  });
  it('whatever the scale, a mark reads back as it was drawn', () => {
    const scales = fc.record({ zero: fc.integer({ min: 0, max: 179 }), grows: fc.constantFrom('left' as const, 'right' as const) });
    fc.assert(
      fc.property(scales, fc.integer({ min: -89, max: 89 }), fc.constantFrom('six' as const, 'threeNine' as const), (scale: InstrumentScale, turn, marks) => {
        const lying = marks === 'threeNine' ? 90 : 0;
        const shown = scale.zero + (scale.grows === 'left' ? 1 : -1) * (turn + lying);
        expect(turnFromScale(((shown % 180) + 180) % 180, scale, marks)).toBe(turn);
      }),
    );
  });
  it('a bare number has a direction only where a scale is set up; a side always wins', () => {
    const on = { scale: { zero: 90, grows: 'right' as const }, marks: 'six' as const };
    expect(parseRotation('100', on)).toEqual({ ok: true, value: -10 });
    expect(parseRotation('10l', on)).toEqual({ ok: true, value: 10 });
    expect(parseRotation('10', null)).toMatchObject({ ok: false, error: { code: 'needsSide' } });
    expect(parseRotation('200', on)).toMatchObject({ ok: false, error: { code: 'offScale' } });
    expect(parseRotation('200', null)).toMatchObject({ ok: false, error: { code: 'outOfRange' } });
    expect(parseRotation('200l', on)).toMatchObject({ ok: false, error: { code: 'outOfRange' } });
  });
});
