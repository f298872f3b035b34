import { linesGained, LINE, type LogMar } from '../optics/acuity';
import { fromPowerVector, subtractVectors, toPowerVector } from '../optics/powerVector';
import { toCornealPlane } from '../optics/vertex';
import { powerOnEye } from '../rotation/compensate';
import { BLUR_PER_LINE } from '../lens/expectedBlur';
import type { Refraction } from '../optics/refraction';
import type { EyeAim } from '../presbyopia/aims';
import type { TriedFamily } from '../rotation/rotationVerdict';
import type { Degrees } from '../units';
import type { EyeVerdict, MeasuredPower } from './eyeVerdict';

/** Two lines of letters as a loss: 20/20 to 20/30 is 0.176, so 0.15 catches it. Our own choice. */
export const TWO_LINES: LogMar = 0.15;
/** What a multifocal is taken to cost sight at distance even where it is right. Our own choice. */
export const MULTIFOCAL_LOSS: LogMar = LINE;

/** Was a line of letters gained with the over-refraction? Null unless letters were read with and without it. @example gainsLine(0.1, 0) → true */
export const gainsLine = (lens: LogMar | null, over: LogMar | null): boolean | null =>
  lens === null || over === null ? null : linesGained(lens, over) >= 1 - 1e-9;

/**
 * The same for an eye by what it is to see: a near eye gains its lines from the far power that the over-refraction gives back, and
 * says nothing of its cylinder.
 * @example gainsLineOf({sees: 'near', plus: 1.5}, 0.5, 0) → null
 */
export const gainsLineOf = (aim: EyeAim, lens: LogMar | null, over: LogMar | null): boolean | null => (aim.sees === 'near' ? null : gainsLine(lens, over));

/**
 * Sight that an over-refraction could not give back: the cylinder left uncorrected, and what a multifocal costs.
 * @param turn how the lens sat when the over-refraction was taken, degrees
 * @returns logMAR, 0 where nothing is known to be left
 * @example expectedLoss(verdict, null, 0, null) → 0
 * @source about a line for 0.25 D of blur strength: common practice
 */
export function expectedLoss(
  verdict: EyeVerdict,
  lens: { readonly power: Refraction; readonly tried: TriedFamily | null } | null,
  turn: Degrees,
  over: MeasuredPower | null,
): LogMar {
  if (!lens || !verdict.need) return 0;
  const geometry = lens.tried?.family.geometry;
  const multifocal = geometry === 'multifocal' || geometry === 'toricMultifocal' ? MULTIFOCAL_LOSS : 0;
  const corrected = over ? toCornealPlane(over.power, over.vertexMm) : { sphere: 0, cylinder: 0, axis: 180 };
  const left = subtractVectors(toPowerVector(verdict.need), toPowerVector(powerOnEye(lens.power, turn)));
  const uncorrected = fromPowerVector({ ...subtractVectors(left, toPowerVector(corrected)), m: 0 });
  return multifocal + (-uncorrected.cylinder / 2 / BLUR_PER_LINE) * LINE;
}
