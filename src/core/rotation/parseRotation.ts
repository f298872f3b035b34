import { err, ok, type Result } from '../../lib/outcome';
import type { MarkLayout } from '../lens/family';
import { LIMITS, withinLimit } from '../limits';
import type { Degrees } from '../units';
import { turnFromScale, type InstrumentScale } from './instrument';

export interface RotationProblem {
  readonly code: 'empty' | 'notARotation' | 'needsSide' | 'outOfRange' | 'notWhole' | 'offScale';
  readonly data: Readonly<Record<string, string | number>>;
  readonly repairs: readonly string[];
}

/** The scale a bare number is read on. */
export interface ReadOn {
  readonly scale: InstrumentScale;
  readonly marks: MarkLayout;
}
/** Numbers a slit-lamp scale can show, degrees. */
const SCALE_END = 180;

/**
 * Reads a turn as typed: `10l`, `5 r`, `left 10`, `0`. A bare number is a reading of the instrument's scale where one is
 * set up, and is otherwise never turned into a direction.
 * @param on the instrument in use; null for none
 * @returns whole degrees, examiner's left positive
 * @example parseRotation('10l').value → 10
 * @source direction words: common practice
 */
export function parseRotation(text: string, on: ReadOn | null = null): Result<Degrees, RotationProblem> {
  const plain = text.normalize('NFKC').trim().toLowerCase().replace(/°/g, '');
  if (plain === '') return err({ code: 'empty', data: {}, repairs: [] });
  const found = /^(?:(l|left|r|right)\s*)?(\d+(?:[.,]\d+)?)\s*(l|left|r|right)?$/.exec(plain);
  if (!found || (found[1] && found[3])) return err({ code: 'notARotation', data: { typed: text.trim() }, repairs: [] });
  const size = Number((found[2] ?? '').replace(',', '.'));
  const side = (found[1] ?? found[3] ?? '').charAt(0);
  if (!Number.isInteger(size)) {
    return err({ code: 'notWhole', data: { typed: text.trim() }, repairs: side ? [`${Math.round(size)}${side}`] : [] });
  }
  if (side === '' && on !== null) {
    if (size > SCALE_END) return err({ code: 'offScale', data: { typed: size, limit: SCALE_END }, repairs: [] });
    return ok(turnFromScale(size, on.scale, on.marks));
  }
  if (!withinLimit(size, LIMITS.rotationLeft)) {
    return err({ code: 'outOfRange', data: { typed: size, limit: LIMITS.rotationLeft.max }, repairs: [] });
  }
  if (side === '' && size !== 0) return err({ code: 'needsSide', data: { typed: size }, repairs: [`${size}l`, `${size}r`] });
  return ok(size === 0 ? 0 : side === 'l' ? size : -size);
}

/** Was a side said, so that the number is an amount and not a reading of a scale? @example saysSide('10l') → true */
export const saysSide = (text: string): boolean => /[lr]/i.test(text);
