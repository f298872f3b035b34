import type { Technique } from './techniques';

/** So many failed attempts in a row, and no success, and another technique is tried. Own choice. */
export const MISSES_TO_CHANGE = 4;

/**
 * Techniques that did not work for this wearer: the last attempts with each failed so often in a row.
 * @param attempts oldest first
 * @example failedTechniques([]) → []
 */
export function failedTechniques(attempts: readonly { readonly technique: Technique | null; readonly worked: boolean }[]): readonly Technique[] {
  const inRow = new Map<Technique, number>();
  for (const { technique, worked } of attempts) if (technique !== null) inRow.set(technique, worked ? 0 : (inRow.get(technique) ?? 0) + 1);
  return [...inRow].filter(([, misses]) => misses >= MISSES_TO_CHANGE).map(([technique]) => technique);
}
