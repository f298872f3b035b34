import { axisDistance, wrapAxis, type Degrees } from '../units';

/** One answer while an axis is bracketed: turned to here, the wearer saw it blur. */
export type BlurPoint = Degrees;

/** What two blur points come to. */
export type BracketedAxis =
  | { readonly ok: true; readonly axis: Degrees; readonly span: Degrees; readonly rule: 'shorter' | 'start' }
  /** `tooClose`: both sides blur at the same axis. `startNeeded`: the two lie 90° apart, only the start says which middle. */
  | { readonly ok: false; readonly problem: 'notAnAxis' | 'tooClose' | 'startNeeded' };

const isAxis = (axis: number): boolean => Number.isFinite(axis) && axis >= 0 && axis <= 180;
/** From `from` towards higher axes up to `to`, 0 to under 180. */
const onwards = (from: Degrees, to: Degrees): Degrees => (((to - from) % 180) + 180) % 180;

/**
 * The axis between the two turns at which letters blur, on the circle of 180: the middle of the way round that holds the axis
 * the cylinder was started from; without a start, of the shorter way.
 * @param a axis at which it blurred on one side, 0 to 180 degrees
 * @param b the same on the other side
 * @param start axis the cylinder stood at before it was turned; null where nobody wrote it down
 * @example middleOfBlur(110, 40, null).ok → true
 * @example middleOfBlur(50, 50, null).ok → false
 * @source bracketing by two blur points: common practice
 */
export function middleOfBlur(a: BlurPoint, b: BlurPoint, start: Degrees | null): BracketedAxis {
  if (![a, b, ...(start === null ? [] : [start])].every(isAxis)) return { ok: false, problem: 'notAnAxis' };
  const apart = axisDistance(a, b);
  if (apart < 1) return { ok: false, problem: 'tooClose' };
  if (start === null && Math.abs(apart - 90) < 1e-9) return { ok: false, problem: 'startNeeded' };
  const up = onwards(a, b);
  const holds = start === null ? up < 90 : onwards(a, start) <= up;
  const [from, span] = holds ? [a, up] : [b, 180 - up];
  return { ok: true, axis: wrapAxis(from + span / 2), span, rule: start === null ? 'shorter' : 'start' };
}
