import { err, ok, type ProblemData, type Result } from '../../lib/outcome';
import { LIMITS, onStep, withinLimit } from '../limits';
import { roundToStep, type Dioptres } from '../units';

export interface AddProblem {
  readonly code: 'addNotANumber' | 'addOutOfRange' | 'addOffStep';
  readonly data: ProblemData;
  readonly repairs: readonly string[];
}

const written = (add: Dioptres): string => `+${add.toFixed(2)}`;

/**
 * Reads a near addition as typed: `+1.75`, `1,75`, `175`, `2`. Three digits are hundredths.
 * @returns D
 * @example parseAdd('175').value → 1.75
 * @source notation: common practice; limits: LIMITS
 */
export function parseAdd(text: string): Result<Dioptres, AddProblem> {
  const plain = text.normalize('NFKC').trim().replace(',', '.').replace(/\s*d$/i, '');
  if (!/^\+?\d+(\.\d+)?$/.test(plain)) return err({ code: 'addNotANumber', data: { typed: text.trim() }, repairs: [] });
  const digits = plain.replace('+', '');
  const add = /^\d{3}$/.test(digits) ? Number(digits) / 100 : Number(digits);
  if (!withinLimit(add, LIMITS.add)) return err({ code: 'addOutOfRange', data: {}, repairs: [] });
  if (onStep(add, LIMITS.add)) return ok(add);
  return err({ code: 'addOffStep', data: {}, repairs: [written(roundToStep(add, 0.25, 'plus'))] });
}
