import { describe, expect, it } from 'vitest';
import { readMany } from '../support/steadiness';

/** Targets of our own choice: a steady lens is not refused, one that costs sight is caught, one that costs nothing is left alone. */
describe('how often a lens is called unsteady or drifting, of 10,000', () => {
  it.each([
    [0.75, 0.01],
    [1.25, 0.01],
    [1.75, 0.01],
    [2.25, 0.025],
    [2.75, 0.025],
  ])('read with an SD of 2.5° at −%d D it is refused in under %d, with four blinks at most on average', (cylinder, share) => {
    const read = readMany(2.5, -cylinder, 10_000);
    expect(read.refused).toBeLessThan(share);
    expect(read.blinks).toBeLessThanOrEqual(4);
  });
  it('a lens of SD 8° is caught where it costs sight', () => {
    expect(readMany(8, -1.75, 10_000).refused).toBeGreaterThan(0.7);
    expect(readMany(8, -2.75, 10_000).refused).toBeGreaterThan(0.8);
  });
  it('at −0.75 a lens of SD 7° is left alone', () => {
    expect(readMany(7, -0.75, 10_000).refused).toBeLessThan(0.05);
  });
});
