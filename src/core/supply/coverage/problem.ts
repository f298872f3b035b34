import type { LensBlock, LensFamily } from '../../lens/family';
import { nearestLenses } from '../../lens/nearestLenses';
import { preselectCurve } from '../../lens/preselectCurve';
import type { Refraction } from '../../optics/refraction';
import { EYES, type Dioptres, type Eye, type Millimetres } from '../../units';

/** Blur with which a wearer may walk out of the practice, D. @source a quarter dioptre: common practice */
export const WALK_OUT_BLUR: Dioptres = 0.25;

/** What a wearer's eyes ask for at the cornea. */
export interface CoverageNeeds {
  readonly needs: Readonly<Record<Eye, Refraction | null>>;
  /** Mean keratometry, D; null when not measured. */
  readonly meanK: Readonly<Record<Eye, Dioptres | null>>;
}
/** A family of which trial lenses may be kept. */
export interface CoverageFamily extends LensFamily {
  readonly code: string;
  readonly blocks: readonly LensBlock[];
}
/** A lens that may lie in the drawer. */
export interface CoverageLens {
  readonly familyCode: string;
  readonly power: Refraction;
  readonly baseCurve: Millimetres;
  readonly diameter: Millimetres;
}
/** Which lenses serve whom: by their places in the list; null for an eye that asks for none. */
export interface CoverageProblem {
  readonly lenses: readonly CoverageLens[];
  readonly wearers: readonly Readonly<Record<Eye, readonly number[] | null>>[];
}

/** Powers of a family that are looked at for one eye: all within a quarter dioptre lie among them. Tried on quarter steps in five parameters. */
const LOOKED_AT = 24;

export const coverageKey = ({ familyCode, power, baseCurve, diameter }: CoverageLens): string =>
  `${familyCode}|${power.sphere}|${power.cylinder}|${power.cylinder === 0 ? 180 : power.axis}|${baseCurve}|${diameter}`;

/**
 * Which trial lenses would let which wearers walk out: every lens of the families whose blur on an eye is at most a quarter
 * dioptre, in the curve that the eye would be given first. Says on its way how many wearers were looked at; told `false` it stops
 * with those.
 */
export function* coverageProblemSteps(
  wearers: readonly CoverageNeeds[],
  families: readonly CoverageFamily[],
): Generator<number, CoverageProblem, boolean | undefined> {
  const places = new Map<string, number>();
  const lenses: CoverageLens[] = [];
  const placeOf = (lens: CoverageLens): number => {
    const key = coverageKey(lens);
    const there = places.get(key);
    if (there !== undefined) return there;
    places.set(key, lenses.length);
    lenses.push(lens);
    return lenses.length - 1;
  };
  const serving = (need: Refraction, meanK: Dioptres | null): readonly number[] =>
    families.flatMap((family) =>
      nearestLenses(need, family, { limit: LOOKED_AT }).flatMap(({ power, blur, variants }) => {
        const chosen = blur <= WALK_OUT_BLUR + 1e-9 ? preselectCurve(variants, meanK) : null;
        return chosen ? [placeOf({ familyCode: family.code, power, baseCurve: chosen.curve.baseCurve, diameter: chosen.curve.diameter })] : [];
      }),
    );
  const served: CoverageProblem['wearers'][number][] = [];
  for (const [i, { needs, meanK }] of wearers.entries()) {
    const one = (eye: Eye): readonly number[] | null => {
      const need = needs[eye];
      return need === null ? null : [...new Set(serving(need, meanK[eye]))];
    };
    const of = { right: one('right'), left: one('left') };
    if (EYES.some((eye) => of[eye] !== null)) served.push(of);
    if ((yield i + 1) === false) break;
  }
  return { lenses, wearers: served };
}

/** The same at once. */
export function coverageProblem(wearers: readonly CoverageNeeds[], families: readonly CoverageFamily[]): CoverageProblem {
  const steps = coverageProblemSteps(wearers, families);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
