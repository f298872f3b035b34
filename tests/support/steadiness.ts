import { DEFAULT_SETTINGS, FULL_SERIES, readingsWanted, seriesStats, unsteadiness } from '../../src/core';
import { bellCurve } from './bellCurve';

export interface Steadiness {
  /** Share of lenses called unsteady or drifting, 0 to 1. */
  readonly refused: number;
  /** Blinks read of each lens, on average. */
  readonly blinks: number;
}

/**
 * Reads many lenses as a fitter does: three blinks, five where the three scatter, whole degrees.
 * @param sd scatter of the readings, degrees
 * @param cylinder of the need, D
 */
export function readMany(sd: number, cylinder: number, lenses: number, seed = 20261124): Steadiness {
  const normal = bellCurve(seed);
  const noise = DEFAULT_SETTINGS.readerNoiseDegrees;
  let refused = 0;
  let blinks = 0;
  for (let i = 0; i < lenses; i++) {
    const readings = Array.from({ length: FULL_SERIES }, () => Math.round(5 + sd * normal()));
    const wanted = readingsWanted(seriesStats(readings.slice(0, 3), noise), cylinder, DEFAULT_SETTINGS);
    blinks += wanted;
    if (unsteadiness(seriesStats(readings.slice(0, wanted), noise), null, DEFAULT_SETTINGS, cylinder) !== null) refused++;
  }
  return { refused: refused / lenses, blinks: blinks / lenses };
}
