import { latest, type FactChain } from '../record/chains';
import type { RefractionFact } from '../record/visitFacts';
import { EYES, type Centimetres, type Dioptres, type Eye, type IsoInstant } from '../units';
import { demandOf } from './nearTask';

/** A near addition as it was recorded. */
export interface NearAdd {
  readonly addD: Dioptres;
  /** Distance that it is for, cm; null where nobody wrote it down. */
  readonly cm: Centimetres | null;
  readonly source: 'measured' | 'age';
  readonly observedAt: IsoInstant;
}
/** Near work whose distance nobody wrote down is taken to lie here, cm. Common practice. */
export const USUAL_NEAR_CM: Centimetres = 40;

const read = (row: RefractionFact | undefined): NearAdd | null =>
  row?.addD ? { addD: row.addD, cm: row.nearCm, source: row.addSource ?? 'measured', observedAt: row.observedAt } : null;

/**
 * The near addition of each eye: of this visit, and only where it has none of either eye the newest of an earlier one.
 * @param before newest refraction with an addition of each eye at earlier visits
 * @example addsKnown([], []).right → null
 */
export function addsKnown(refractions: readonly FactChain<RefractionFact>[], before: readonly RefractionFact[]): Readonly<Record<Eye, NearAdd | null>> {
  const now = (eye: Eye): NearAdd | null => read(latest(refractions, (r) => r.eye === eye)?.current);
  const here = { right: now('right'), left: now('left') };
  if (here.right || here.left) return here;
  const earlier = (eye: Eye): NearAdd | null => read(before.find((r) => r.eye === eye && r.addD !== null));
  return { right: earlier('right'), left: earlier('left') };
}

/** The near addition that a wearer is served by: the stronger of the two eyes'. @example addKnown([], []) → null */
export function addKnown(refractions: readonly FactChain<RefractionFact>[], before: readonly RefractionFact[]): NearAdd | null {
  const adds = addsKnown(refractions, before);
  return EYES.map((eye) => adds[eye]).reduce((best, add) => (add && (best === null || add.addD > best.addD) ? add : best), null);
}

/**
 * Dioptres that a wearer still accommodates at near work: what the distance asks less the addition found for it.
 * @example accommodates({addD: 1.5, cm: 40, source: 'measured', observedAt: ''}) → 1
 * @source optics
 */
export const accommodates = (add: NearAdd | null): Dioptres => (add === null ? 0 : Math.max(0, demandOf(add.cm ?? USUAL_NEAR_CM) - add.addD));
