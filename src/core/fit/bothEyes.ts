import { LINE, linesGained, type LogMar } from '../optics/acuity';
import { latest, type FactChain } from '../record/chains';
import type { AcuityBothFact } from '../record/visitFacts';
import type { Eye } from '../units';
import type { EyeAcuities } from './overDoubts';

/**
 * Sight of both eyes through the two lenses that are decided on; null while it was not read through these two.
 * @example sightOfBoth([], {right: 'a', left: 'b'}) → null
 */
export const sightOfBoth = (chains: readonly FactChain<AcuityBothFact>[], lensOnEye: Readonly<Record<Eye, string | null>>) =>
  latest(chains, (row) => row.rightLensOnEyeId === lensOnEye.right && row.leftLensOnEyeId === lensOnEye.left);

/**
 * Lines that both eyes together fall short of the better one alone; null when they do not, or too little was read. Two
 * eyes see at least as much as the better of them, so a loss asks for another look at the lens of the weaker eye.
 * @param both logMAR
 * @example linesLostTogether(0.2, {right: {glasses: 0, lens: 0, over: null, pinhole: null}, left: {glasses: 0, lens: 0.3, over: null, pinhole: null}}) → 2
 * @source common practice
 */
export function linesLostTogether(both: LogMar | null, eyes: Readonly<Record<Eye, EyeAcuities>>): number | null {
  const best = [eyes.right.lens, eyes.left.lens].filter((a) => a !== null);
  if (both === null || best.length === 0) return null;
  const better = Math.min(...best);
  return both - better >= LINE - 1e-9 ? linesGained(both, better) : null;
}
