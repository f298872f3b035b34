/** What a pair of lenses is for. Each has a prescription in force of its own: monovision every day, a pair for distance beside it. */
export const PURPOSES = ['everyday', 'distance', 'near'] as const;
export type Purpose = (typeof PURPOSES)[number];

/**
 * The prescription in force of each purpose: the one signed last.
 * @param signed in any order
 * @returns newest first
 * @example inForce([{purpose: 'everyday', number: 1}, {purpose: 'everyday', number: 3}, {purpose: 'distance', number: 2}]).map((p) => p.number) → [3, 2]
 */
export function inForce<P extends { readonly purpose: Purpose; readonly number: number }>(signed: readonly P[]): P[] {
  const newest = [...signed].sort((a, b) => b.number - a.number);
  return newest.filter((p, i) => newest.findIndex((q) => q.purpose === p.purpose) === i);
}
