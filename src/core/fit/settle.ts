import type { LensRow } from '../record/lens';

/** Minutes from insertion until a lens has settled for its fit, and until sight through it is judged. */
export interface Settle {
  readonly fit: number;
  readonly sight: number;
}

/** Minutes for a lens of which nobody knows: between spheres and torics. Our own choice. */
const UNKNOWN_SETTLES = 15;

/**
 * How long a lens settles: its family says so; thick lenses for irregular corneas show their fit long before sight is steady.
 * @param lens undefined where nobody knows which it is
 * @example settleOf(undefined).fit → 15
 * @source each family's own minutes; 5 to 10 for the fit and 30 for sight over an irregular cornea: common practice
 */
export function settleOf(lens: Pick<LensRow, 'settleMinutes' | 'sightMinutes'> | undefined): Settle {
  const fit = lens?.settleMinutes ?? UNKNOWN_SETTLES;
  return { fit, sight: Math.max(fit, lens?.sightMinutes ?? fit) };
}
