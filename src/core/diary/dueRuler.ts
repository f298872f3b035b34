/** Pixels for each doubling of the wait. */
const PER_DOUBLING = 100;
/** Minutes at which the wait has doubled once. */
const FIRST_MINUTES = 5;

/**
 * Where something due stands on a ruler whose distance grows with the logarithm of the wait: minutes near now get more room.
 * @param minutes from now; what is past stands at now
 * @returns pixels below now
 * @example dueAt(5) → 100
 */
export const dueAt = (minutes: number): number => PER_DOUBLING * Math.log2(1 + Math.max(0, minutes) / FIRST_MINUTES);

/**
 * Places for items of a ruler that must not cover each other: each at its own place, or below the one before it.
 * @param wanted pixels, ascending
 * @param heights pixels of each
 */
export function withoutOverlap(wanted: readonly number[], heights: readonly number[]): number[] {
  let free = 0;
  return wanted.map((at, i) => {
    const place = Math.max(at, free);
    free = place + (heights[i] ?? 0);
    return place;
  });
}
