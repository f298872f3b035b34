import type { MarkLayout } from '../lens/family';
import type { Degrees, Eye } from '../units';
import { anglesOf } from './markLayout';
import type { Circle } from './plane';

/** A place in a picture, pixels from its upper left corner. */
export interface PhotoPoint {
  readonly x: number;
  readonly y: number;
}

/** Brings an angle into −180 (left out) to 180, degrees. @example halfTurn(270) → -90 */
export const halfTurn = (angle: Degrees): Degrees => -((((180 - angle) % 360) + 360) % 360) + 180;

/**
 * Direction from one place to another, degrees clockwise from straight down as the picture is seen.
 * @example clockwiseFromDown({ x: 0, y: 0 }, { x: -1, y: 0 }) → 90
 */
export const clockwiseFromDown = (from: PhotoPoint, to: PhotoPoint): Degrees => (Math.atan2(-(to.x - from.x), to.y - from.y) * 180) / Math.PI;

/** The place at a distance and a direction clockwise from straight down. */
export function placeAt({ x, y, r }: Circle, clockwise: Degrees): PhotoPoint {
  const a = (clockwise * Math.PI) / 180;
  return { x: x - r * Math.sin(a), y: y + r * Math.cos(a) };
}

/**
 * How far a picture is turned: the line through both canthi is level in an upright head.
 * @returns degrees clockwise, from −90 to 90
 * @example rollOfCanthi({ x: 0, y: 0 }, { x: 100, y: 0 }) → 0
 */
export function rollOfCanthi(one: PhotoPoint, other: PhotoPoint): Degrees {
  const [left, right] = one.x <= other.x ? [one, other] : [other, one];
  return (Math.atan2(right.y - left.y, right.x - left.x) * 180) / Math.PI;
}

/** On which side of the picture the nose is, and where its top is, as somebody who saw it taken says. */
export interface PhotoSides {
  readonly nose: Eye;
  readonly top: 'up' | 'down';
}
/** `upright`; `upsideDown`: turned by half a turn, and read so; `mirrored`: its left is the eye's right, or it is the other eye. */
export type PhotoLies = 'upright' | 'upsideDown' | 'mirrored';

/**
 * How a picture lies by what was said of it. The examiner faces the wearer: the nose is at the right of a right eye. A mirrored picture
 * turns left into right and is never read.
 * @example photoLies('right', { nose: 'right', top: 'up' }) → 'upright'
 */
export function photoLies(eye: Eye, { nose, top }: PhotoSides): PhotoLies {
  if (top === 'up') return nose === eye ? 'upright' : 'mirrored';
  return nose === eye ? 'mirrored' : 'upsideDown';
}

/** Marks that can be pointed at, by where they sit on a lens that is not turned. */
export const MARK_HOURS = ['three', 'five', 'six', 'seven', 'nine', 'twelve'] as const;
export type MarkHour = (typeof MARK_HOURS)[number];
const HOURS_OF: Readonly<Record<MarkLayout, readonly MarkHour[]>> = {
  none: [],
  six: ['six'],
  twelve: ['twelve'],
  threeNine: ['nine', 'three'],
  fiveSixSeven: ['five', 'six', 'seven'],
};
/** Marks of a layout, as a finger may point at them. @example marksOf('threeNine') → ['nine', 'three'] */
export const marksOf = (layout: MarkLayout): readonly MarkHour[] => HOURS_OF[layout];

/** Where a mark sits on a lens that is not turned, degrees clockwise from straight down; undefined for a mark the layout has not. */
export const hourAngle = (layout: MarkLayout, spacing: Degrees, hour: MarkHour): Degrees | undefined =>
  anglesOf(layout, spacing)[HOURS_OF[layout].indexOf(hour)];

/** A mark pointed at in a picture, and which of the lens's marks it is. */
export interface PointedMark {
  readonly lens: Circle;
  /** Degrees clockwise from straight down, in the picture. */
  readonly at: Degrees;
  /** Null while nobody said which it is: where a lens has several, one is not told from another. */
  readonly hour: MarkHour | null;
  readonly roll: Degrees;
}

/**
 * The turn of a lens whose mark was pointed at.
 * @returns degrees, the examiner's left positive; null where it is not known which mark it is
 */
export function turnByHand(layout: MarkLayout, spacing: Degrees, { at, hour, roll }: PointedMark): Degrees | null {
  const hours = HOURS_OF[layout];
  const named = hour ?? (hours.length === 1 ? (hours[0] ?? null) : null);
  if (named === null) return null;
  const own = hourAngle(layout, spacing, named);
  return own === undefined ? null : halfTurn(at - roll - own);
}

/** Where the eye looked when the picture was taken: any but straight ahead turns the lens with it. */
export const PHOTO_GAZES = ['ahead', 'elsewhere'] as const;
export type PhotoGaze = (typeof PHOTO_GAZES)[number];
/** A lid that is held pulls at the lens. */
export const PHOTO_LIDS = ['free', 'held'] as const;
export type PhotoLid = (typeof PHOTO_LIDS)[number];
