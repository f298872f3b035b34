import type { Dioptres, Eye } from '../units';
import { fromPowerCross } from './powerCross';
import { blurStrength, subtractVectors, toPowerVector } from './powerVector';
import type { Refraction } from './refraction';

type Pair = Readonly<Record<Eye, Refraction | null>>;

/** Blur strength between two powers (D): how differently an eye would see through them. @example powerDistance({sphere: -1, cylinder: 0, axis: 180}, {sphere: -2, cylinder: 0, axis: 180}) → 1 */
export const powerDistance = (a: Refraction, b: Refraction): Dioptres => blurStrength(subtractVectors(toPowerVector(a), toPowerVector(b)));

/** A change since last time of this much blur strength is asked about (D). Our own choice. */
export const LARGE_CHANGE: Dioptres = 1;

/**
 * Do right and left seem to have changed places? True when, set against last time, the eyes crossed over fit far
 * better than as they stand.
 * @param before the last powers measured, each eye's own
 * @example probablySwapped({right: {sphere: -4, cylinder: 0, axis: 180}, left: {sphere: -2, cylinder: 0, axis: 180}}, {right: {sphere: -2, cylinder: 0, axis: 180}, left: {sphere: -4, cylinder: 0, axis: 180}}) → true
 * @source our own
 */
export function probablySwapped(now: Pair, before: Pair): boolean {
  if (!now.right || !now.left || !before.right || !before.left) return false;
  const asTheyStand = powerDistance(now.right, before.right) + powerDistance(now.left, before.left);
  const crossed = powerDistance(now.right, before.left) + powerDistance(now.left, before.right);
  return asTheyStand - crossed >= 0.75 && crossed <= asTheyStand / 2;
}

/**
 * How far a power lies from the last one, when that is worth asking about; null when it is not.
 * @example largeChange({sphere: -3, cylinder: 0, axis: 180}, {sphere: -1.5, cylinder: 0, axis: 180}) → 1.5
 */
export function largeChange(now: Refraction, before: Refraction): Dioptres | null {
  const change = powerDistance(now, before);
  return change >= LARGE_CHANGE - 1e-9 ? change : null;
}

/**
 * Read as sphere and cylinder, might this have been a power cross copied down? A cylinder of two dioptres or more that
 * is at least as strong as a sphere of the same sign is how a cross looks when its second power is taken for a cylinder.
 * @param sphere as typed, D
 * @param cylinder as typed, either notation, D
 * @returns what the two powers make as a cross, the second lying along the axis typed; null when there is no doubt
 * @example crossRead(-3.25, -4.5, 180) → {sphere: -3.25, cylinder: -1.25, axis: 90}
 * @source our own
 */
export function crossRead(sphere: Dioptres, cylinder: Dioptres, axis: number): Refraction | null {
  const doubtful = Math.abs(cylinder) >= 2 && Math.abs(cylinder) >= Math.abs(sphere) && sphere * cylinder > 0;
  return doubtful ? fromPowerCross({ power: sphere, along: axis > 90 ? axis - 90 : axis + 90 }, { power: cylinder, along: axis }) : null;
}

/** Words that only prism is written with: a triangle, a pd, or a base. */
const PRISM =
  /[,;]?\s*(?:\d+(?:[.,]\d+)?\s*)?(?:Δ|∆|pd\b|prism\b)?\s*(?:\bbase[\s-]*)(?:in|out|up|down)\b\.?|[,;]?\s*\d+(?:[.,]\d+)?\s*(?:(?:Δ|∆|pd\b|prism\b)\s*(?:\b(?:bi|bo|bu|bd)\b)?|\b(?:bi|bo|bu|bd)\b)/giu;

/**
 * Takes prism out of a prescription as written: no soft lens carries it, so it is kept apart and said.
 * @example splitPrism('-3.25 -1.75 x 20 2Δ BO') → {power: '-3.25 -1.75 x 20', prism: '2Δ BO'}
 */
export function splitPrism(text: string): { readonly power: string; readonly prism: string | null } {
  const found = [...text.matchAll(PRISM)].map((m) => m[0].replace(/^[,;\s]+/, '').trim()).filter((p) => p !== '');
  if (found.length === 0) return { power: text, prism: null };
  return { power: text.replace(PRISM, ' ').replace(/\s+/g, ' ').trim(), prism: found.join(', ') };
}
