import type { FactChain } from '../record/chains';
import type { Degrees, Eye, IsoInstant } from '../units';
import type { Fact } from '../record/fact';
import type { OnEyeFact, RotationFact } from '../record/visitFacts';

/** A lens that was handed over: what is known of it without asking anybody. */
export interface HandedLens extends Fact {
  readonly lensId: string;
  readonly lot: string;
  readonly expiresOn: string;
  readonly handedOn: string;
}

/**
 * The lenses an eye may have come in with: those handed over for it, the newest first, each lens of a lot once.
 * @example handedFor('right', []) → []
 */
export function handedFor<H extends HandedLens>(eye: Eye, handOvers: readonly FactChain<H>[]): readonly H[] {
  const given = handOvers.flatMap((c) => (c.current?.eye === eye ? [c.current] : []));
  const newest = given.sort((a, b) => (a.recordedAt < b.recordedAt ? 1 : -1));
  return newest.filter((h, i) => newest.findIndex((o) => o.lensId === h.lensId && o.lot === h.lot) === i);
}

/** How the same lens sat on the same eye at an earlier visit. */
export interface EarlierTurn {
  readonly visitId: string;
  readonly at: IsoInstant;
  /** Mean of the last series; positive: to the fitter's left, degrees. */
  readonly rotationLeft: Degrees;
  readonly readings: number;
}

/**
 * How a lens turned on an eye at earlier visits, the newest first: the last series of each.
 * @param lensId the lens by its family, power, curve and diameter: the same one worn home
 * @param onEye lenses on eyes, of all visits
 * @param rotations readings of the mark, of earlier visits
 * @example turnHistory('right', 'lens', [], []) → []
 */
export function turnHistory(
  eye: Eye,
  lensId: string,
  onEye: readonly FactChain<OnEyeFact>[],
  rotations: readonly FactChain<RotationFact>[],
): readonly EarlierTurn[] {
  const same = new Set(onEye.flatMap((c) => (c.current?.eye === eye && c.current.lensId === lensId ? [c.rootId] : [])));
  const read = rotations.flatMap((c) => (c.current && same.has(c.current.lensOnEyeId) ? [c.current] : []));
  const visits = [...new Set(read.map((r) => r.visitId))];
  const turns = visits.flatMap((visitId): EarlierTurn[] => {
    const ofVisit = read.filter((r) => r.visitId === visitId);
    const last = ofVisit.at(-1);
    if (!last) return [];
    const series = ofVisit.filter((r) => r.lensOnEyeId === last.lensOnEyeId && r.seriesNo === last.seriesNo);
    const mean = series.reduce((sum, r) => sum + r.rotationLeftDeg, 0) / series.length;
    return [{ visitId, at: last.observedAt, rotationLeft: mean, readings: series.length }];
  });
  return turns.sort((a, b) => (a.at < b.at ? 1 : -1));
}
