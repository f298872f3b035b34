import { roundToStep, type Degrees, type Dioptres, type Eye, type IsoInstant } from '../units';
import type { Refraction } from '../optics/refraction';

/** What the wearer said of a cylinder held before the eye, against what stood there before. */
export const CYLINDER_ANSWERS = ['better', 'same', 'worse'] as const;
export type CylinderAnswer = (typeof CYLINDER_ANSWERS)[number];
/** One cylinder offered, and the answer. */
export interface CylinderTry {
  readonly cylinder: Dioptres;
  readonly answer: CylinderAnswer;
}

/** Cylinders are offered in these steps over an irregular cornea, D: smaller ones are not told apart. Common practice. */
export const CYLINDER_STEPS: readonly Dioptres[] = [0.75, 1];
/** Most that is offered, D. */
const MOST: Dioptres = 6;

/** What to offer next, or what it came to. */
export type CylinderStep = { readonly offer: Dioptres; readonly settled: null } | { readonly offer: null; readonly settled: Dioptres };

/**
 * The next cylinder to hold before the eye: one step stronger as long as it is better; the first that is not ends it, and the strongest that
 * was better holds. None better: no cylinder.
 * @param tries answers so far, in order
 * @param step 0.75 or 1.00 D
 * @example nextCylinder([{cylinder: -1, answer: 'better'}], 1).offer → -2
 * @example nextCylinder([{cylinder: -1, answer: 'better'}, {cylinder: -2, answer: 'same'}], 1).settled → -1
 * @source steps of 0.75 to 1.00 D, by the wearer's answers: common practice
 */
export function nextCylinder(tries: readonly CylinderTry[], step: Dioptres): CylinderStep {
  const last = tries.at(-1);
  const better = tries.filter((t) => t.answer === 'better').at(-1)?.cylinder ?? 0;
  if (last && (last.answer !== 'better' || last.cylinder - step < -MOST)) return { offer: null, settled: better };
  return { offer: (last?.cylinder ?? 0) - step, settled: null };
}

/**
 * An over-refraction with a cylinder that was found by answers: the sphere gives half of it back, so that the middle of the image stays in focus.
 * @param sphere spherical over-refraction that stood before, D
 * @example withCylinder(0.5, -2, 75).sphere → 1.5
 * @source spherical equivalent kept while cylinder is added: common practice; ties towards plus
 */
export function withCylinder(sphere: Dioptres, cylinder: Dioptres, axis: Degrees): Refraction {
  return cylinder === 0 ? { sphere, cylinder: 0, axis: 180 } : { sphere: roundToStep(sphere - cylinder / 2, 0.25, 'plus'), cylinder, axis: Math.round(axis) };
}

/** A cylinder that was looked for step by step through a lens: kept with its answers. */
export interface GuidedCylinder {
  readonly id: string;
  readonly lensOnEyeId: string;
  readonly eye: Eye;
  readonly startAxis: Degrees | null;
  readonly blur: readonly [Degrees, Degrees];
  readonly axis: Degrees;
  readonly tries: readonly CylinderTry[];
  readonly cylinder: Dioptres;
  readonly foundAt: IsoInstant;
  readonly foundByName: string;
}
