import { err, ok, type Result } from '../../lib/outcome';

/** How a practice writes acuity. */
export type AcuityNotation = 'feet' | 'metres' | 'decimal' | 'logMAR';
/** Acuity as the logarithm of the least angle, minutes of arc: 0 is 20/20, +0.1 is one line worse. */
export type LogMar = number;

/** One line of letters, and one letter of five. Source: the logMAR chart, Bailey & Lovie 1976, from memory. */
export const LINE: LogMar = 0.1;
export const LETTER: LogMar = 0.02;
export const ACUITY_LIMITS = { min: -0.4, max: 3 } as const;

export interface AcuityProblem {
  readonly code: 'acuityEmpty' | 'acuityShape' | 'acuityOutOfRange';
  readonly data: Readonly<Record<string, string | number>>;
}

const FRACTION = /^(20|6)\s*\/\s*(\d+(?:[.,]\d+)?)\s*(?:([+-])\s*(\d))?$/;
const BARE = /^([+-]?\d*(?:[.,]\d+)?)\s*(?:([+-])\s*(\d))?$/;
const figure = (text: string): number => Number(text.replace(',', '.'));
const hundredths = (value: number): number => Math.round(value * 100) / 100 + 0;

/**
 * Reads an acuity as typed: `20/25`, `20/20-2` (two letters short), `6/7.5`, and a bare figure in the practice's own notation.
 * @returns logMAR to 0.01
 * @example parseAcuity('20/40', 'feet').value → 0.3
 * @source 20/40 = 0.50 = 6/12 = 0.301 logMAR: common practice
 */
export function parseAcuity(text: string, notation: AcuityNotation): Result<LogMar, AcuityProblem> {
  const plain = text.normalize('NFKC').trim().replace(/[−–]/g, '-');
  if (plain === '') return err({ code: 'acuityEmpty', data: {} });
  const shape = err<AcuityProblem>({ code: 'acuityShape', data: { typed: text.trim() } });
  const fraction = FRACTION.exec(plain);
  const bare = fraction ? null : BARE.exec(plain);
  if (!fraction && (!bare || bare[1] === '' || bare[1] === undefined)) return shape;
  let size: number;
  if (fraction) size = Math.log10(figure(fraction[2] ?? '') / Number(fraction[1]));
  else {
    const value = figure(bare?.[1] ?? '');
    if (notation === 'logMAR') size = value;
    else if (value <= 0) return shape;
    else if (notation === 'decimal') size = -Math.log10(value);
    else size = Math.log10(value / (notation === 'feet' ? 20 : 6));
  }
  const [sign, letters] = fraction ? [fraction[3], fraction[4]] : [bare?.[2], bare?.[3]];
  // More letters read means a smaller angle.
  if (sign && letters) size += (sign === '+' ? -1 : 1) * Number(letters) * LETTER;
  if (!Number.isFinite(size)) return shape;
  if (size < ACUITY_LIMITS.min - 1e-9 || size > ACUITY_LIMITS.max + 1e-9) return err({ code: 'acuityOutOfRange', data: { typed: text.trim() } });
  return ok(hundredths(size));
}

/** The lines of a chart, as 20ths of feet. Source: preferred numbers of the logMAR chart, from memory. */
const FEET = [10, 12.5, 16, 20, 25, 32, 40, 50, 63, 80, 100, 125, 160, 200, 250, 320, 400, 500, 630, 800] as const;

/**
 * Writes an acuity in the practice's notation: the nearest line, and letters more or less.
 * @example formatAcuity(0.04, 'feet') → '20/20−2'
 */
export function formatAcuity(acuity: LogMar, notation: AcuityNotation): string {
  if (notation === 'logMAR') return (acuity < 0 ? '−' : '') + Math.abs(acuity).toFixed(2);
  if (notation === 'decimal') return (10 ** -acuity).toFixed(2);
  const step = Math.round(acuity / LINE + 1e-9);
  const feet = FEET[step + 3] ?? 20 * 10 ** (step * LINE);
  const letters = Math.round((acuity - step * LINE) / LETTER);
  const tail = letters === 0 ? '' : letters > 0 ? `−${letters}` : `+${-letters}`;
  const size = notation === 'feet' ? feet : (feet * 6) / 20;
  return `${notation === 'feet' ? '20' : '6'}/${Number(size.toFixed(1))}${tail}`;
}

/** Lines of letters gained from one acuity to another; negative when lines are lost. @example linesGained(0.3, 0.1) → 2 */
export const linesGained = (before: LogMar, after: LogMar): number => hundredths((before - after) / LINE);
