/** How a solution goes with a lens material. `avoid`: they are not to be used together. */
export const PAIR_EFFECTS = ['none', 'irritates', 'avoid'] as const;
export type PairEffect = (typeof PAIR_EFFECTS)[number];

/** A solution and a material, how they go together, and who says so. */
export interface CarePair {
  readonly productId: string;
  /** As families name it. */
  readonly material: string;
  readonly effect: PairEffect;
  readonly source: string;
}

/**
 * What is known of a solution with a material; null where nothing is, which is not the same as that they go together.
 * @example carePairOf([{productId: 'p', material: 'Samphirol', effect: 'irritates', source: 's'}], 'p', 'samphirol ')?.effect → 'irritates'
 */
export function carePairOf<Pair extends CarePair>(pairs: readonly Pair[], productId: string, material: string): Pair | null {
  const plain = (text: string): string => text.trim().toLowerCase();
  return pairs.find((p) => p.productId === productId && plain(p.material) === plain(material)) ?? null;
}
