import type { OTHER_SOLUTIONS } from '../aftercare/asked';
import type { FactChain } from '../record/chains';
import type { AftercareAnswerFact, CareSystemFact } from '../record/visitFacts';
import { TRADE } from '../advice/source';
import type { CarePair } from './carePair';
import type { CareProduct } from './careSystem';
import { careFindings, type CareFinding } from './verdict';

/** The care system that holds: the one prescribed last; null while none is. */
export const carePrescribed = (chains: readonly FactChain<CareSystemFact>[]): CareSystemFact | null =>
  chains
    .flatMap((c) => (c.current ? [c.current] : []))
    .toSorted((a, b) => a.recordedAt.localeCompare(b.recordedAt))
    .at(-1) ?? null;

/** What lenses are really kept in, as the wearer says or as it was prescribed: a product's identity, or a word for anything else. */
export type KeptIn = string;
type OtherSolution = (typeof OTHER_SOLUTIONS)[number];

/**
 * What lenses are kept in, as far as this practice knows: what was said or prescribed last; null: nothing of it.
 * @param answers of aftercare, at this visit and before
 */
export function keptIn(care: readonly FactChain<CareSystemFact>[], answers: readonly FactChain<AftercareAnswerFact>[]): KeptIn | null {
  const said = answers
    .flatMap((c) => (c.current?.question === 'solutionUsed' ? [{ at: c.current.recordedAt, what: c.current.said[0] ?? null }] : []))
    .toSorted((a, b) => a.at.localeCompare(b.at))
    .at(-1);
  const prescribed = carePrescribed(care);
  if (said && (!prescribed || said.at >= prescribed.recordedAt)) return said.what;
  return prescribed?.productId ?? null;
}

/** What is to be said of lenses kept so. */
export interface CareWarning {
  /** The product's name; null for what is none of the practice's products. */
  readonly name: string | null;
  readonly other: OtherSolution | null;
  readonly findings: readonly CareFinding[];
}
/** Of what is none of the practice's products. */
const OTHER_FINDINGS: Readonly<Partial<Record<OtherSolution, CareFinding>>> = {
  saline: { fault: 'disinfectsNothing', gravity: 'absolute', source: TRADE },
  water: { fault: 'disinfectsNothing', gravity: 'absolute', source: TRADE },
  shopsOwn: { fault: 'ownLabel', gravity: 'watch', source: TRADE },
};

/**
 * What is to be said wherever lenses of some materials meet what they are kept in; null when nothing is.
 * @param what see `keptIn`
 */
export function careWarning(
  what: KeptIn | null,
  products: readonly CareProduct[],
  materials: readonly string[],
  pairs: readonly CarePair[],
): CareWarning | null {
  if (what === null || materials.length === 0) return null;
  const product = products.find((p) => p.productId === what);
  // Figures that nobody looked up hinder prescribing, not wearing.
  const findings = product ? careFindings(product, materials, pairs).filter((f) => f.fault !== 'figuresUnknown') : [];
  const other = OTHER_FINDINGS[what as OtherSolution];
  if (other) return { name: null, other: what as OtherSolution, findings: [other] };
  return findings.length > 0 && product ? { name: product.name, other: null, findings } : null;
}
