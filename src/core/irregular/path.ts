import type { FitVerdict } from '../fit/fitVerdict';
import type { LogMar } from '../optics/acuity';
import type { PracticeSettings } from '../practiceSettings';

/** Sight that serves everyday life, logMAR: 20/40. Common practice. */
export const FUNCTIONAL: LogMar = 0.301;
/** Lines that a cylinder must gain to be worth it where sight is functional without. Common practice. */
export const CYLINDER_GAIN_LINES = 2;
/** Days in the best sphere before a cylinder is looked for. Common practice; a second school looks the same day. */
export const CYLINDER_AFTER_DAYS = 14;
/** Two lines, a little under: 20/20 to 20/30 is 0.176. */
const TWO_LINES: LogMar = 0.15;
/** What counts as a line gained, logMAR: three letters of five. Our own. */
const A_LINE: LogMar = 0.06;

/** What cylinder may be looked for over a lens of a set. */
export type CylinderRule =
  { readonly may: true; readonly why: 'underFunctional' | 'gainsTwoLines' } | { readonly may: false; readonly why: 'functional' | 'wearFirst' | 'sphereFirst' };

/**
 * May a cylinder be looked for over this lens? Only where sight stays under a functional 20/40 with the best sphere, or where it is known
 * to gain two lines; and by the first school only after about two weeks in the best sphere.
 * @param sphereAcuity with the spherical over-refraction, logMAR; null while it was not read
 * @param gain lines that a cylinder was seen to gain; null where none was tried
 * @param daysInSphere days that this eye wore the best sphere
 * @example cylinderRule({sphereAcuity: 0.1, gain: null, daysInSphere: 20, school: 'twoWeeks'}).why → 'functional'
 * @source under 20/40 or two lines, after two weeks or the same day: common practice, two schools
 */
export function cylinderRule(of: {
  readonly sphereAcuity: LogMar | null;
  readonly gain: number | null;
  readonly daysInSphere: number;
  readonly school: PracticeSettings['irregularCylinder'];
}): CylinderRule {
  if (of.sphereAcuity === null) return { may: false, why: 'sphereFirst' };
  const under = of.sphereAcuity > FUNCTIONAL + 1e-9;
  const gains = of.gain !== null && of.gain >= CYLINDER_GAIN_LINES;
  if (!under && !gains) return { may: false, why: 'functional' };
  if (of.school === 'twoWeeks' && of.daysInSphere < CYLINDER_AFTER_DAYS) return { may: false, why: 'wearFirst' };
  return { may: true, why: under ? 'underFunctional' : 'gainsTwoLines' };
}

/** How one eye stands on the way to a lens of a set. */
export interface IrregularEye {
  /** Minutes since the lens went on; null while none is on. */
  readonly minutesOn: number | null;
  readonly settle: { readonly fit: number; readonly sight: number };
  readonly fit: FitVerdict['verdict'] | null;
  /** Does the mark come to the same place after each blink? Null while it was not read often enough. */
  readonly markSteady: boolean | null;
  /** Does the mark wander on blinking in up gaze? Null while nobody looked. */
  readonly upGazeWanders: boolean | null;
  /** Was an over-refraction taken through this lens? */
  readonly overRefracted: boolean;
  /** Sight through the lens, and with the over-refraction on top, logMAR. */
  readonly lensAcuity: LogMar | null;
  readonly overAcuity: LogMar | null;
  /** The best this eye is known to see: pinhole, a rigid lens, its own last visit; logMAR. */
  readonly best: LogMar | null;
}

/** What comes next over an irregular cornea. */
export const PATH_STEPS = [
  'putOn',
  'waitFit',
  'judgeFit',
  'steeper',
  'flatter',
  'readMark',
  'refit',
  'lookUp',
  'waitSight',
  'sphereOver',
  'readSight',
  'notThisKind',
  'order',
] as const;
export type PathStep = (typeof PATH_STEPS)[number];

/** No line gained by the over-refraction, and two lines and more short of what the eye is known to see. */
function isOtherKind({ lensAcuity, overAcuity, best }: IrregularEye): boolean {
  if (overAcuity === null) return false;
  const gained = lensAcuity !== null && lensAcuity - overAcuity >= A_LINE;
  const short = best === null ? overAcuity > FUNCTIONAL + 1e-9 : overAcuity - best >= TWO_LINES;
  return !gained && short;
}

/**
 * The next step over an irregular cornea: the fit before the sight, since a tight lens blurs too; is the mark steady; up gaze; then a walk
 * until sight can be judged; a spherical over-refraction first. Where that raises nothing and the eye is known to see better, this kind of
 * lens is not the answer.
 * @example irregularPath({minutesOn: null, settle: {fit: 10, sight: 30}, fit: null, markSteady: null, upGazeWanders: null, overRefracted: false, lensAcuity: null, overAcuity: null, best: null}) → 'putOn'
 * @source common practice
 */
export function irregularPath(eye: IrregularEye): PathStep {
  if (eye.minutesOn === null) return 'putOn';
  if (eye.fit === 'loose') return 'steeper';
  if (eye.fit === 'tight') return 'flatter';
  if (eye.minutesOn < eye.settle.fit) return 'waitFit';
  if (eye.fit === null || eye.fit === 'mixed') return 'judgeFit';
  if (eye.markSteady === null) return 'readMark';
  if (!eye.markSteady) return 'refit';
  if (eye.upGazeWanders === null) return 'lookUp';
  if (eye.minutesOn < eye.settle.sight) return 'waitSight';
  if (!eye.overRefracted) return 'sphereOver';
  if (eye.overAcuity === null) return 'readSight';
  return isOtherKind(eye) ? 'notThisKind' : 'order';
}
