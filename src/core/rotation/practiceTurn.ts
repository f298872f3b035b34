import type { RotationPrior } from '../lens/expectedBlur';
import type { Degrees } from '../units';

/** How a family's marks came to sit on this practice's eyes. */
export interface PracticeTurn {
  /** Mean over eyes, degrees; positive to the examiner's left. */
  readonly mean: Degrees;
  /** Spread over eyes; 0 of one eye. */
  readonly sd: Degrees;
  readonly eyes: number;
}

/** Eyes that what is assumed counts for: with as many of its own, a practice's figures and the assumed ones weigh alike. Our own choice. */
export const ASSUMED_EYES = 10;

/**
 * How the marks of a family are taken to sit: the practice's own figures, drawn towards the assumed ones while its eyes are few.
 * @example shrunkTurn({mean: 6, sd: 4, eyes: 10}, {mean: 0, sd: 6}).mean → 3
 * @source normal–inverse-gamma posterior means; the weight of what is assumed: our own choice
 */
export function shrunkTurn(own: PracticeTurn | null, assumed: RotationPrior): RotationPrior {
  if (own === null || own.eyes < 1) return assumed;
  const all = own.eyes + ASSUMED_EYES;
  const mean = (own.eyes * own.mean + ASSUMED_EYES * assumed.mean) / all;
  const within = ASSUMED_EYES * assumed.sd ** 2 + Math.max(0, own.eyes - 1) * own.sd ** 2;
  const between = ((own.eyes * ASSUMED_EYES) / all) * (own.mean - assumed.mean) ** 2;
  return { mean, sd: Math.sqrt((within + between) / all) };
}
