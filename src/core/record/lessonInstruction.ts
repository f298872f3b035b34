import type { FactChain } from './chains';
import type { LessonInstructionFact } from './visitFacts';

/** What a prescriber says of a lesson: something more to teach, or who else may handle the lenses. */
export const INSTRUCTIONS = ['addition', 'helper'] as const;
export type Instruction = (typeof INSTRUCTIONS)[number];
/** Why somebody else handles a wearer's lenses. Source: common practice. */
export const HELPER_WHY = ['child', 'stiffHands', 'tremor', 'sight', 'other'] as const;
export type HelperWhy = (typeof HELPER_WHY)[number];

/** Those that stand. */
export const instructionsOf = (chains: readonly FactChain<LessonInstructionFact>[], what: Instruction): readonly LessonInstructionFact[] =>
  chains.flatMap(({ current }) => (current?.what === what ? [current] : []));

const plain = (name: string): string => name.trim().replaceAll(/\s+/g, ' ').toLowerCase();

/**
 * Did a prescriber agree that this person handles the wearer's lenses?
 * @example helperAgreed([], 'Ada Quillby') → false
 */
export const helperAgreed = (chains: readonly FactChain<LessonInstructionFact>[], name: string): boolean =>
  instructionsOf(chains, 'helper').some((i) => plain(i.text) === plain(name));
