import { err, ok, type Result } from '../../lib/outcome';
import type { Centimetres } from '../units';
import { ACUITY_LIMITS, LETTER, type LogMar } from './acuity';

export interface NearAcuityProblem {
  readonly code: 'nearAcuityEmpty' | 'nearAcuityShape' | 'nearAcuityJaeger' | 'acuityOutOfRange';
  readonly data: Readonly<Record<string, string | number>>;
}

/** Points of print that are as high as 1 M, whose letters subtend five minutes of arc at one metre. Source: N8 = 1.0 M, common practice. */
const POINTS_OF_M = 8;

const POINTS = /^n\s*(\d+(?:[.,]\d+)?)$/i;
const SIZE = /^(?:m\s*(\d*[.,]?\d+)|(\d*[.,]?\d+)\s*m)$/i;
const FRACTION = /^(20|6)\s*\/\s*(\d+(?:[.,]\d+)?)\s*(?:([+-])\s*(\d))?$/;
const JAEGER = /^j\s*\d+/i;
const figure = (text: string): number => Number(text.replace(',', '.'));

/**
 * Reads a near acuity as typed, at a distance: print in points (`N5`), letters in M (`0.4M`, `M 0.4`), or the fraction of a card made
 * for that distance (`20/25`). Jaeger sizes differ from card to card and are not taken.
 * @param cm distance of the card
 * @returns logMAR to 0.01, the angle that was read
 * @example parseNearAcuity('1M', 40).value → 0.4
 * @source 0.4 M at 40 cm is 20/20, N8 is 1 M: common practice
 */
export function parseNearAcuity(text: string, cm: Centimetres): Result<LogMar, NearAcuityProblem> {
  const plain = text.normalize('NFKC').trim().replace(/[−–]/g, '-');
  const data = { typed: text.trim() };
  if (plain === '') return err({ code: 'nearAcuityEmpty', data: {} });
  if (JAEGER.test(plain)) return err({ code: 'nearAcuityJaeger', data });
  const points = POINTS.exec(plain);
  const size = SIZE.exec(plain);
  const fraction = FRACTION.exec(plain);
  let angle: number;
  if (points) angle = figure(points[1] ?? '') / POINTS_OF_M / (cm / 100);
  else if (size) angle = figure(size[1] ?? size[2] ?? '') / (cm / 100);
  else if (fraction) angle = figure(fraction[2] ?? '') / Number(fraction[1]);
  else return err({ code: 'nearAcuityShape', data });
  const letters = fraction?.[3] ? (fraction[3] === '+' ? -1 : 1) * Number(fraction[4]) * LETTER : 0;
  const read = Math.log10(angle) + letters;
  if (!Number.isFinite(read)) return err({ code: 'nearAcuityShape', data });
  if (read < ACUITY_LIMITS.min - 1e-9 || read > ACUITY_LIMITS.max + 1e-9) return err({ code: 'acuityOutOfRange', data });
  return ok(Math.round(read * 100) / 100 + 0);
}

/** Letters of this angle at a distance as their size in M. @example sizeInM(0.4, 40) → 1 */
export const sizeInM = (acuity: LogMar, cm: Centimetres): number => Math.round(10 ** acuity * cm) / 100;
