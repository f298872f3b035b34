import { err, ok, type Result } from '../../lib/outcome';
import { LIMITS, withinLimit } from '../limits';
import type { Degrees } from '../units';

export interface RotationProblem {
  readonly code: 'empty' | 'notARotation' | 'needsSide' | 'outOfRange' | 'notWhole';
  readonly data: Readonly<Record<string, string | number>>;
  readonly repairs: readonly string[];
}

/**
 * Reads a turn as typed: `10l`, `5 r`, `left 10`, `0`. A bare number is never turned into a direction.
 * @returns whole degrees, examiner's left positive
 * @example parseRotation('10l').value → 10
 * @source direction words: common practice
 */
export function parseRotation(text: string): Result<Degrees, RotationProblem> {
  const plain = text.normalize('NFKC').trim().toLowerCase().replace(/°/g, '');
  if (plain === '') return err({ code: 'empty', data: {}, repairs: [] });
  const found = /^(?:(l|left|r|right)\s*)?(\d+(?:[.,]\d+)?)\s*(l|left|r|right)?$/.exec(plain);
  if (!found || (found[1] && found[3])) return err({ code: 'notARotation', data: { typed: text.trim() }, repairs: [] });
  const size = Number((found[2] ?? '').replace(',', '.'));
  const side = (found[1] ?? found[3] ?? '').charAt(0);
  if (!Number.isInteger(size)) {
    return err({ code: 'notWhole', data: { typed: text.trim() }, repairs: side ? [`${Math.round(size)}${side}`] : [] });
  }
  if (!withinLimit(size, LIMITS.rotationLeft)) {
    return err({ code: 'outOfRange', data: { typed: size, limit: LIMITS.rotationLeft.max }, repairs: [] });
  }
  if (side === '' && size !== 0) return err({ code: 'needsSide', data: { typed: size }, repairs: [`${size}l`, `${size}r`] });
  return ok(size === 0 ? 0 : side === 'l' ? size : -size);
}
