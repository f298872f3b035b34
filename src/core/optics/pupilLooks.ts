import { minimumAmplitude, NEAR_DEMAND } from '../presbyopia/nearAdd';
import { powerOnEye } from '../rotation/compensate';
import type { Degrees, Dioptres } from '../units';
import { subtractVectors, toPowerVector, type PowerVector } from './powerVector';
import type { Refraction } from './refraction';

/** Ways in which a wearer may look at letters: through glasses, the lens as it is, the one to order, and that one turned further to either side. */
export const LOOKS = ['glasses', 'now', 'ordered', 'orderedLeft', 'orderedRight'] as const;
export type Look = (typeof LOOKS)[number];
/** How much further the ordered lens is thought turned, degrees. */
export const TURNED_ON: Degrees = 10;

/** What a look leaves uncorrected, D. */
export interface LookSeen {
  readonly look: Look;
  readonly residual: PowerVector;
}

/** What a lens that sits turned leaves of what the eye asks. */
const leftBy = (need: Refraction, lens: Refraction, turn: Degrees): PowerVector => subtractVectors(toPowerVector(need), toPowerVector(powerOnEye(lens, turn)));

/**
 * What each look leaves; the ordered ones only where an order is known.
 * @param turn how the lens sits, degrees, the examiner's left positive
 * @example looksOf({ sphere: -1, cylinder: 0, axis: 180 }, { sphere: -1, cylinder: 0, axis: 180 }, null, 0).length → 2
 */
export function looksOf(need: Refraction, now: Refraction, ordered: Refraction | null, turn: Degrees): readonly LookSeen[] {
  const own: LookSeen[] = [
    { look: 'glasses', residual: { m: 0, j0: 0, j45: 0 } },
    { look: 'now', residual: leftBy(need, now, turn) },
  ];
  if (ordered === null) return own;
  return [
    ...own,
    { look: 'ordered', residual: leftBy(need, ordered, turn) },
    { look: 'orderedLeft', residual: leftBy(need, ordered, turn + TURNED_ON) },
    { look: 'orderedRight', residual: leftBy(need, ordered, turn - TURNED_ON) },
  ];
}

/**
 * What of the way to near an eye does not make by itself: half of the least amplitude of its age helps (D, never above 0).
 * @example nearLeft(50) → -1.25
 * @source Hofstetter 1950, from memory; half the amplitude in reserve is common practice
 */
export const nearLeft = (age: number, demand: Dioptres = NEAR_DEMAND): Dioptres => -Math.max(0, demand - minimumAmplitude(age) / 2);

/** The wearer looks out of the eye that the examiner looks into: what runs up to the examiner's right runs up to the wearer's left. @example asWearerSees({ m: 0, j0: 1, j45: 2 }) → {m: 0, j0: 1, j45: -2} */
export const asWearerSees = ({ m, j0, j45 }: PowerVector): PowerVector => ({ m, j0, j45: -j45 });
