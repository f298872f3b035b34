import type { Degrees, Dioptres, IsoInstant } from '../units';
import { readingsWanted, seriesStats, unsteadiness, type SteadinessRules } from './series';

/** One look finds the mark where it is known to sit when it lies within so many degrees of it: over twice a reader's noise. Our own choice. */
export const LOOK_WITHIN: Degrees = 5;

/** The last whole series of readings, at an earlier visit, of a lens family on an eye. */
export interface KnownTurn {
  /** The lens of this visit that it bears on: one of the same family, on the same eye. */
  readonly lensOnEyeId: string;
  readonly at: IsoInstant;
  /** Degrees, examiner's left positive, in the order read. */
  readonly readings: readonly Degrees[];
}

/**
 * A turn that one look can confirm: read in full at an earlier visit, and steady there.
 * @param cylinder of the lens, D
 * @returns its mean, degrees, examiner's left positive; null where it was not steady, or too little was read
 * @example knownMean({ lensOnEyeId: 'a', at: '2025-11-24T10:00:00Z', readings: [10, 9, 11] }, rules, -1.75) → 10
 * @source a turn belongs to the family and the eye: common practice; what is steady: see unsteadiness
 */
export function knownMean(known: KnownTurn, rules: SteadinessRules, cylinder: Dioptres): Degrees | null {
  const stats = seriesStats(known.readings, rules.readerNoiseDegrees);
  const steady = stats.count >= readingsWanted(stats, cylinder, rules) && unsteadiness(stats, null, rules, cylinder) === null;
  return steady ? stats.mean : null;
}

/**
 * Readings that speak of the turn: today's, and, where they are but a look or two that find the mark where it is known to sit,
 * those of the earlier visit with them. A mark that sits elsewhere is read anew.
 * @param today degrees, examiner's left positive, in the order read
 * @param mean of the known turn, as knownMean has it
 * @example withKnown([9], 10, [10, 9, 11]) → [10, 9, 11, 9]
 * @source our own choice
 */
export function withKnown(today: readonly Degrees[], mean: Degrees | null, earlier: readonly Degrees[]): readonly Degrees[] {
  const looks = today.length > 0 && today.length < 3;
  const there = mean !== null && today.every((r) => Math.abs(r - mean) <= LOOK_WITHIN + 1e-9);
  return looks && there ? [...earlier, ...today] : today;
}
