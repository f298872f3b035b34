import { LIMITS, withinLimit } from '../limits';
import { fromPowerCross } from './powerCross';
import type { Refraction } from './refraction';

const ONE = /([+-]?\d+(?:[.,]\d+)?)\s*(?:D\s*)?@\s*(\d{1,3})\s*°?/giu;

/**
 * A power cross as it is written: two powers, each along its meridian, 90 degrees apart.
 * @returns the prescription, or null when this is no power cross
 * @example parsePowerCross('-1.00 @ 180 / -2.25 @ 90') → {sphere: -1, cylinder: -1.25, axis: 180}
 * @source common practice
 */
export function parsePowerCross(text: string): Refraction | null {
  const plain = text.replace(/[−–]/g, '-');
  const found = [...plain.matchAll(ONE)].map((m) => ({ power: Number((m[1] ?? '').replace(',', '.')), along: Number(m[2]) === 0 ? 180 : Number(m[2]) }));
  const [a, b] = found;
  if (!a || !b || found.length !== 2) return null;
  if (plain.replace(ONE, '').replace(/[\s/,;x×&]+|and/giu, '') !== '') return null;
  if (Math.abs(Math.abs(a.along - b.along) - 90) > 1e-9) return null;
  if (![a, b].every((m) => withinLimit(m.power, LIMITS.sphere) && withinLimit(m.along, LIMITS.axis))) return null;
  return fromPowerCross(a, b);
}
