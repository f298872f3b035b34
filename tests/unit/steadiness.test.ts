import { describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS, seriesStats, unsteadiness } from '../../src/core';
import { bellCurve } from '../support/bellCurve';

describe('how often a series of five is called unsteady or drifting', () => {
  it('a steady lens read with an SD of 2.5° is called so in over 95 % of 10,000 series, a lens of 8° in under 25 %', () => {
    const normal = bellCurve(20261124);
    const called = (sd: number): number => {
      let count = 0;
      for (let i = 0; i < 10_000; i++) {
        const readings = Array.from({ length: 5 }, () => Math.round(5 + sd * normal()));
        if (unsteadiness(seriesStats(readings, 2), null, DEFAULT_SETTINGS) !== null) count++;
      }
      return count / 10_000;
    };
    expect(called(2.5)).toBeLessThan(0.05);
    expect(called(8)).toBeGreaterThan(0.75);
  });
});
