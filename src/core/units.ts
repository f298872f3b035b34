/** Dioptres (D): reciprocal metres, positive for converging power. */
export type Dioptres = number;
/** Millimetres (mm). */
export type Millimetres = number;
/** Centimetres (cm). */
export type Centimetres = number;
/** Degrees. Axes follow the TABO convention: anticlockwise as the examiner sees the eye, 0/180 horizontal. */
export type Degrees = number;
/** A calendar day, `YYYY-MM-DD`. */
export type IsoDate = string;
/** An instant in UTC, ISO 8601. */
export type IsoInstant = string;

/** The wearer's own right or left eye. */
export type Eye = 'right' | 'left';
export const EYES: readonly Eye[] = ['right', 'left'];

/** Adds zero so that −0 never reaches a screen, a key or a comparison. */
export const noNegativeZero = (value: number): number => value + 0;

/**
 * Rounds to a step. Powers tie towards plus (an over-minus is the worse mistake); everything else half away
 * from zero. Never −0.
 * @param value in the unit of `step`
 * @param step for example 0.25 D or 0.1 mm
 * @example roundToStep(-3.125, 0.25, 'plus') → -3
 * @source rounding towards plus: our own choice, against accommodation-driven over-minus
 */
export function roundToStep(value: number, step: number, ties: 'plus' | 'away' = 'plus'): number {
  const inSteps = value / step;
  const nudge = 1e-9;
  const whole = ties === 'plus' ? Math.floor(inSteps + 0.5 + nudge) : Math.sign(inSteps) * Math.floor(Math.abs(inSteps) + 0.5 + nudge);
  // The reciprocal keeps decimal steps exact: 85 × 0.1 is not 8.5, 85 / 10 is.
  const perUnit = Math.round(1 / step);
  return noNegativeZero(Math.abs(perUnit * step - 1) < 1e-12 ? whole / perUnit : whole * step);
}

/** Brings an angle to (0, 180]. @example wrapAxis(190) → 10 */
export function wrapAxis(axis: Degrees): Degrees {
  const wrapped = axis % 180;
  const positive = wrapped <= 0 ? wrapped + 180 : wrapped;
  return positive < 1e-9 ? 180 : positive;
}

/** Smallest angle between two axes, 0 to 90 degrees. @example axisDistance(170, 10) → 20 */
export function axisDistance(a: Degrees, b: Degrees): Degrees {
  const d = Math.abs(a - b) % 180;
  return Math.min(d, 180 - d);
}
