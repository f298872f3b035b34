import type { Dioptres } from '../units';

/** Spectacle powers and the change at the cornea that the trade remembers for them (D). */
const REMEMBERED: readonly (readonly [power: Dioptres, change: Dioptres])[] = [
  [4, 0.25],
  [6, 0.5],
  [8, 0.75],
  [10, 1],
];

/**
 * The remembered change from spectacles to the cornea for a power along one meridian: a quarter at 4 D, a half at 6,
 * three quarters at 8, one at 10; towards plus. It holds for minus and small plus at about 12 mm only: shown beside the exact
 * value, never used. Null under 4 D.
 * @param power spectacle power, D
 * @returns the power at the cornea by the rule, D
 * @example ruleOfThumb(-6) → -5.5
 * @source common practice
 */
export function ruleOfThumb(power: Dioptres): Dioptres | null {
  const found = REMEMBERED.findLast(([from]) => Math.abs(power) >= from);
  return found ? power + found[1] : null;
}
