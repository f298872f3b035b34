import { axisDistance, type Degrees, type Dioptres } from '../units';
import type { LensPower } from './family';

/** Blur strengths closer than this count as equal when lenses are ranked (D). Our own choice. */
export const BLUR_TIE = 0.005;

/** What the ranking looks at. */
export interface Ranked {
  readonly power: LensPower;
  /** Blur strength of need − lens (D). */
  readonly blur: Dioptres;
}

/** Blur strengths closer than this are the same (D). */
const FINE = 1e-6;

/** The class of equal blur a figure falls in. @example blurClass(0.0931) → 19 */
export const blurClass = (blur: Dioptres): number => Math.round(blur / BLUR_TIE);

/**
 * The total order of makeable lenses for one need: least blur (in classes of 0.005 D), then more plus spherical
 * equivalent, less cylinder, axis nearer the last lens worn (if known), less blur whatever the class, lower axis. Negative when a stands first.
 * @param lastAxis axis of the last lens worn, degrees, or undefined
 * @source least blur strength: Thibos et al. 1997; the tie rules: our own choice, never towards minus
 */
export const compareRanked = (a: Ranked, b: Ranked, lastAxis?: Degrees): number =>
  compareNumbers(a.blur, a.power.sphere, a.power.cylinder, a.power.axis, b.blur, b.power.sphere, b.power.cylinder, b.power.axis, lastAxis);

/** `compareRanked` on bare numbers, for the search: blur, sphere, cylinder, axis of a, then of b. */
export function compareNumbers(
  aBlur: Dioptres,
  aSphere: Dioptres,
  aCylinder: Dioptres,
  aAxis: Degrees,
  bBlur: Dioptres,
  bSphere: Dioptres,
  bCylinder: Dioptres,
  bAxis: Degrees,
  lastAxis: Degrees | undefined,
): number {
  const byBlur = blurClass(aBlur) - blurClass(bBlur);
  if (byBlur !== 0) return byBlur;
  const byPlus = bSphere + bCylinder / 2 - (aSphere + aCylinder / 2);
  if (Math.abs(byPlus) > 1e-9) return byPlus;
  const byCylinder = Math.abs(aCylinder) - Math.abs(bCylinder);
  if (Math.abs(byCylinder) > 1e-9) return byCylinder;
  if (lastAxis !== undefined) {
    const byLast = axisDistance(aAxis, lastAxis) - axisDistance(bAxis, lastAxis);
    if (Math.abs(byLast) > 1e-9) return byLast;
  }
  // The same power at two axes a degree or two apart: the nearer one, though it gains next to nothing.
  const byFine = Math.round(aBlur / FINE) - Math.round(bBlur / FINE);
  return byFine !== 0 ? byFine : aAxis - bAxis;
}
