import { roundToStep } from '../units';
import type { Refraction } from './refraction';
import { toMinusCylinder, transpose } from './transpose';

/** How a prescription is written. */
export interface FormatOptions {
  /** Cylinder sign shown; default minus. */
  readonly notation?: 'minus' | 'plus';
  /** Decimals of sphere and cylinder; default 2. */
  readonly decimals?: number;
  /** What stands for zero power alone; default `plano`. */
  readonly plano?: string;
}

/**
 * A signed power with a true minus sign. @example formatPower(-3.25) → '−3.25'
 * @source notation: common practice
 */
export function formatPower(power: number, decimals = 2): string {
  const rounded = roundToStep(power, 10 ** -decimals, 'away');
  const digits = Math.abs(rounded).toFixed(decimals);
  return rounded < 0 ? `−${digits}` : rounded > 0 ? `+${digits}` : digits;
}

/** A whole-degree axis, 1 to 180: 0 is written 180. @example formatAxis(0.2) → '180' */
export const formatAxis = (axis: number): string => {
  const whole = Math.round(axis) % 180;
  return String(whole === 0 ? 180 : whole);
};

/**
 * Writes a power as the trade does: `−3.25 −1.75 × 20`. Shown figures are rounded, never the ones used.
 * @param refraction D, TABO degrees
 * @param options notation, decimals, word for plano
 * @example formatRefraction({sphere: -3.25, cylinder: -1.75, axis: 20}) → '−3.25 −1.75 × 20'
 * @source notation: common practice
 */
export function formatRefraction(refraction: Refraction, options: FormatOptions = {}): string {
  const { notation = 'minus', decimals = 2, plano = 'plano' } = options;
  const minus = toMinusCylinder(refraction);
  const shown = notation === 'plus' ? transpose(minus) : minus;
  const cylinder = roundToStep(shown.cylinder, 10 ** -decimals, 'away');
  const sphere = roundToStep(shown.sphere, 10 ** -decimals, 'away');
  if (cylinder === 0) return sphere === 0 ? plano : formatPower(sphere, decimals);
  return `${formatPower(sphere, decimals)} ${formatPower(cylinder, decimals)} × ${formatAxis(shown.axis)}`;
}
