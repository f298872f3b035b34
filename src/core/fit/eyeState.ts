import { latest, type Appended, type FactChain } from '../facts/chains';
import type { Refraction } from '../optics/refraction';
import type { Degrees, Eye, IsoInstant } from '../units';
import { eyeVerdict, type EyeVerdict } from './eyeVerdict';

/** Columns that every clinical fact shows. */
export interface Fact extends Appended {
  readonly eye: Eye;
  readonly visitId: string;
  readonly observedAt: IsoInstant;
  readonly recordedAt: IsoInstant;
  readonly recordedBy: string;
  readonly recordedByName: string;
  readonly reason: string | null;
}
export interface PowerColumns {
  readonly sphereD: number;
  readonly cylinderD: number;
  readonly axisDeg: number;
}
export interface RefractionFact extends Fact, PowerColumns {
  readonly vertexMm: number;
  readonly typedText: string;
  readonly source: 'typed' | 'copied';
  /** Near addition, D; null when none is known. */
  readonly addD: number | null;
  readonly addSource: 'measured' | 'age' | null;
  /** Prism in the glasses, as written. */
  readonly prismText: string | null;
}
export interface OnEyeFact extends Fact {
  readonly lensId: string | null;
  readonly description: string | null;
  readonly source: 'trial' | 'dispensed' | 'order' | 'broughtIn';
  readonly trialNumber: number | null;
  readonly trialStockId: string | null;
  readonly lot: string | null;
  readonly expiresOn: string | null;
  readonly putOnAt: IsoInstant;
}
export type FitWord = 'loose' | 'fits' | 'tight';
export interface FitFact extends Fact {
  readonly lensOnEyeId: string;
  readonly verdict: FitWord;
}
export interface RotationFact extends Fact {
  readonly lensOnEyeId: string;
  readonly rotationLeftDeg: Degrees;
  readonly how: 'drag' | 'keys' | 'typed';
  readonly provisional: boolean;
}
export interface OverRefractionFact extends Fact, PowerColumns {
  readonly lensOnEyeId: string;
  readonly vertexMm: number;
  readonly typedText: string;
  readonly provisional: boolean;
}
/** Who vouches for a lens on an eye, and when it came off. */
export interface OnEyeExtra {
  readonly lensOnEyeId: string;
  readonly how: 'putOnHere' | 'wearerSaid' | 'boxSeen' | null;
  readonly takenOffAt: IsoInstant | null;
  readonly withdrawnOffAt: IsoInstant | null;
  readonly withdrawnReason: string | null;
}

/** The measured facts of one visit, as chains. */
export interface VisitFacts {
  readonly refractions: readonly FactChain<RefractionFact>[];
  readonly onEye: readonly FactChain<OnEyeFact>[];
  readonly onEyeExtras: readonly OnEyeExtra[];
  readonly fits: readonly FactChain<FitFact>[];
  readonly rotations: readonly FactChain<RotationFact>[];
  readonly overRefractions: readonly FactChain<OverRefractionFact>[];
}

type Current<F extends Fact> = (FactChain<F> & { readonly current: F }) | null;

/** One eye as it stands in a visit. */
export interface EyeState {
  readonly refraction: Current<RefractionFact>;
  /** The lens tried or looked at last. */
  readonly onEye: Current<OnEyeFact>;
  readonly confirmed: OnEyeExtra['how'];
  readonly takenOffAt: IsoInstant | null;
  readonly fit: Current<FitFact>;
  readonly rotation: Current<RotationFact>;
  readonly overRefraction: Current<OverRefractionFact>;
  readonly verdict: EyeVerdict;
}

export const powerOf = (row: PowerColumns): Refraction => ({ sphere: row.sphereD, cylinder: row.cylinderD, axis: row.axisDeg });

/**
 * What holds for one eye in a visit, and what it comes to. Readings count only through the lens they were taken
 * with; an unconfirmed lens counts for nothing.
 * @param lensPower power of a lens by its id; undefined where the id is not known
 * @param readerNoise SD of one reading of the mark, degrees
 * @example eyeState(noFacts, 'right', () => undefined, 2).verdict.order → null
 * @source see eyeVerdict
 */
export function eyeState(facts: VisitFacts, eye: Eye, lensPower: (lensId: string) => Refraction | undefined, readerNoise: Degrees): EyeState {
  const refraction = latest(facts.refractions, (r) => r.eye === eye);
  const onEye = latest(facts.onEye, (r) => r.eye === eye);
  const extra = facts.onEyeExtras.find((e) => e.lensOnEyeId === onEye?.rootId);
  const ofLens = (row: { readonly eye: Eye; readonly lensOnEyeId: string }): boolean => row.eye === eye && row.lensOnEyeId === onEye?.rootId;
  const fit = latest(facts.fits, ofLens);
  const rotation = latest(facts.rotations, ofLens);
  const overRefraction = latest(facts.overRefractions, ofLens);
  const lens = onEye?.current.lensId && extra?.how ? (lensPower(onEye.current.lensId) ?? null) : null;
  return {
    refraction,
    onEye,
    confirmed: extra?.how ?? null,
    takenOffAt: extra?.takenOffAt ?? null,
    fit,
    rotation,
    overRefraction,
    verdict: eyeVerdict({
      refraction: refraction && { power: powerOf(refraction.current), vertexMm: refraction.current.vertexMm },
      lens,
      rotationLeft: rotation?.current.rotationLeftDeg ?? null,
      overRefraction: overRefraction && { power: powerOf(overRefraction.current), vertexMm: overRefraction.current.vertexMm },
      readerNoise,
    }),
  };
}
