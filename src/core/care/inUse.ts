import { aftercareSaid } from '../aftercare/asked';
import type { FactChain } from '../record/chains';
import type { AftercareAnswerFact, CareSystemFact } from '../record/visitFacts';

/** The care system that holds: the one prescribed last; null while none is. Chains are told oldest first. */
export const carePrescribed = (chains: readonly FactChain<CareSystemFact>[]): CareSystemFact | null =>
  chains
    .flatMap((c) => (c.current ? [c.current] : []))
    .toSorted((a, b) => a.recordedAt.localeCompare(b.recordedAt))
    .at(-1) ?? null;

/**
 * The product that lenses are really kept in, as far as this practice knows: what the wearer said at this visit's aftercare, else what was
 * prescribed. Null: not known, or none of the practice's products.
 */
export function productInUse(care: readonly FactChain<CareSystemFact>[], answers: readonly FactChain<AftercareAnswerFact>[], visitId: string): string | null {
  const said = aftercareSaid(answers, 'solutionUsed', null, visitId)?.[0];
  // A product's identity has hyphens; the words for anything else have none.
  if (said !== undefined) return said.includes('-') ? said : null;
  return carePrescribed(care)?.productId ?? null;
}
