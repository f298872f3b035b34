import { err, ok, type Result } from '../../lib/outcome';
import type { MarkLayout } from '../lens/family';
import type { Degrees } from '../units';

/**
 * How the scale of one slit lamp's beam counts. Scales differ in direction and in zero, so a bare number is never turned
 * into a direction without this; it is set up once, by looking at a drawn mark.
 */
export interface InstrumentScale {
  /** What the scale reads with the beam straight up and down, degrees. */
  readonly zero: Degrees;
  /** Does the number grow when the lower end of the beam goes to the examiner's left, or to the right? */
  readonly grows: 'left' | 'right';
}

/** A scale counts around half a circle: a beam is the same at 0 and 180. */
const HALF = 180;
const between = (angle: number): Degrees => {
  const wrapped = ((((angle + 90) % HALF) + HALF) % HALF) - 90;
  return wrapped === -90 ? 90 : wrapped + 0;
};

/**
 * Where a lens sits, from the number on the scale with the beam on its mark.
 * @param reading scale reading, degrees 0 to 180
 * @param marks marks at 3 and 9 are read with the beam lying across
 * @returns degrees in (−90, 90], examiner's left positive
 * @example turnFromScale(100, {zero: 90, grows: 'left'}, 'six') → 10
 * @source geometry of the beam: common practice
 */
export function turnFromScale(reading: Degrees, scale: InstrumentScale, marks: MarkLayout): Degrees {
  const turned = scale.grows === 'left' ? reading - scale.zero : scale.zero - reading;
  return between(marks === 'threeNine' ? turned - 90 : turned);
}

/** How far to the examiner's left the second drawn mark sits when an instrument is set up, degrees. */
export const SET_UP_TURN: Degrees = 20;
/** How far a reading of a drawn mark may be off, degrees. Our own choice. */
const SET_UP_SLACK = 6;

/**
 * The scale of an instrument, from what it reads on two drawn marks: one straight down, one 20° to the examiner's left.
 * @example scaleFromDrawings(90, 110).value → {zero: 90, grows: 'left'}
 * @returns err when the two numbers do not lie about 20° apart: one of them was misread
 */
export function scaleFromDrawings(
  straight: Degrees,
  toTheLeft: Degrees,
): Result<InstrumentScale, { readonly code: 'scaleNotApart'; readonly data: { readonly apart: number } }> {
  const apart = between(toTheLeft - straight);
  if (Math.abs(Math.abs(apart) - SET_UP_TURN) > SET_UP_SLACK) return err({ code: 'scaleNotApart', data: { apart: Math.abs(Math.round(apart)) } });
  return ok({ zero: ((straight % HALF) + HALF) % HALF, grows: apart > 0 ? 'left' : 'right' });
}
