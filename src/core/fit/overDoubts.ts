import { linesGained, LINE, type LogMar } from '../optics/acuity';
import { blurStrength, fromPowerVector, subtractVectors, toPowerVector } from '../optics/powerVector';
import type { Refraction } from '../optics/refraction';
import { powerOnEye } from '../rotation/compensate';
import type { MeasuredParts } from '../rotation/resolveOverRefraction';
import type { Degrees, Dioptres, Eye } from '../units';
import type { LensFindings } from './lensSigns';
import { TWO_LINES } from './sight';

/** A surprise against the lens believed to be on the eye, as blur strength. Our own choice. */
export const SURPRISE_ONE_EYE: Dioptres = 0.75;
export const SURPRISE_BOTH_EYES: Dioptres = 0.5;
/** A change of axis from the lens on the eye to the lens to order that first asks. Our own choice. */
export const SURPRISE_AXIS: Degrees = 20;
/** Cylinder from which an axis means something here. Our own choice. */
const AXIS_COUNTS: Dioptres = 0.75;
/** How close a pattern must come, blur strength. Our own choice. */
const LOOKS_LIKE: Dioptres = 0.375;
const SWAP_FROM: Dioptres = 0.5;
const NO_LENS_FROM: Dioptres = 1;

/** One eye read through a lens that is believed to be on it. */
export interface OverRead {
  readonly lens: Refraction;
  /** How the lens sat when it was read through. */
  readonly rotationLeft: Degrees;
  /** What the over-refraction measured; only that is compared. Default: all. */
  readonly parts?: MeasuredParts;
  /** What the glasses say the eye needs, at the cornea; null when they were not measured. */
  readonly need: Refraction | null;
  /** The over-refraction brought to the cornea. */
  readonly over: Refraction;
  /** The axis to order; null while none is offered. */
  readonly orderAxis: Degrees | null;
}

export interface KnownLens {
  readonly name: string;
  readonly power: Refraction;
}

export type OverPattern =
  | { readonly code: 'swapped' }
  | { readonly code: 'noLens' }
  | { readonly code: 'looksLike'; readonly name: string }
  | { readonly code: 'surprise'; readonly gap: Dioptres; readonly limit: Dioptres }
  | { readonly code: 'axisFar'; readonly by: Degrees };

const minus = (a: Refraction, b: Refraction): Refraction => fromPowerVector(subtractVectors(toPowerVector(a), toPowerVector(b)));
/** Blur strength of a power in the parts that were measured. */
function strength(power: Refraction, parts: MeasuredParts = 'all'): Dioptres {
  const v = toPowerVector(power);
  return parts === 'all' ? blurStrength(v) : Math.abs(v.m);
}
/** How far an over-refraction is from what a lens would leave on this eye, sitting as it was seen to; null while the need is not known. */
const gapThrough = (eye: OverRead, lens: Refraction): Dioptres | null =>
  eye.need === null ? null : strength(minus(minus(eye.need, powerOnEye(lens, eye.rotationLeft)), eye.over), eye.parts);
const gapOf = (eye: OverRead): Dioptres | null => gapThrough(eye, eye.lens);
/** What was measured on both eyes. */
const commonParts = (a: OverRead, b: OverRead): MeasuredParts => (a.parts === 'mean' || b.parts === 'mean' ? 'mean' : 'all');

/** Is what was read on an eye explained by another lens, and not by its own? */
function exchangeExplains(eye: OverRead, other: Refraction): boolean {
  const own = gapOf(eye);
  const exchanged = gapThrough(eye, other);
  return own !== null && exchanged !== null && exchanged <= LOOKS_LIKE && own >= SURPRISE_BOTH_EYES - 1e-9 && own > exchanged;
}

/**
 * Are the lenses of the two eyes exchanged? Each eye is explained by the other's lens, sitting as this eye's mark was seen to
 * sit, and not by its own; or the over-refractions are equal and opposite, as the exchange would make them.
 */
function swapped(right: OverRead, left: OverRead): boolean {
  if (strength(right.over, right.parts) < SWAP_FROM || strength(left.over, left.parts) < SWAP_FROM) return false;
  if (exchangeExplains(right, left.lens) && exchangeExplains(left, right.lens)) return true;
  const parts = commonParts(right, left);
  const sum = minus(right.over, minus({ sphere: 0, cylinder: 0, axis: 180 }, left.over));
  if (strength(sum, parts) > LOOKS_LIKE) return false;
  // Two lenses of one power may change places unseen: then something else is the cause.
  const explained = minus(powerOnEye(right.lens, right.rotationLeft), powerOnEye(left.lens, right.rotationLeft));
  return strength(minus(right.over, explained), parts) <= SURPRISE_BOTH_EYES;
}

/**
 * What the over-refractions of a visit look like: lenses exchanged, no lens on the eye, another lens that was at hand, or
 * simply not what this lens should leave. Each first asks "is this the lens?".
 * @param known other lenses that could be on each eye by mistake
 * @example overPatterns({right, left}, {right: [], left: []}).right[0]?.code → 'swapped'
 * @source sign patterns: common practice; limits: our own choice
 */
export function overPatterns(
  eyes: Readonly<Record<Eye, OverRead | null>>,
  known: Readonly<Record<Eye, readonly KnownLens[]>>,
): Readonly<Record<Eye, readonly OverPattern[]>> {
  const { right, left } = eyes;
  const exchanged = right !== null && left !== null && swapped(right, left);
  const gaps = { right: right && gapOf(right), left: left && gapOf(left) };
  const both = [gaps.right, gaps.left].every((g) => g !== null && g >= SURPRISE_BOTH_EYES - 1e-9);
  const of = (eye: Eye): readonly OverPattern[] => {
    const read = eyes[eye];
    if (!read) return [];
    if (exchanged) return [{ code: 'swapped' }];
    const found: OverPattern[] = [];
    const gap = gaps[eye];
    const limit = both ? SURPRISE_BOTH_EYES : SURPRISE_ONE_EYE;
    const surprising = gap !== null && gap >= limit - 1e-9;
    if (strength(read.lens, read.parts) >= NO_LENS_FROM && strength(minus(read.over, read.lens), read.parts) <= LOOKS_LIKE) return [{ code: 'noLens' }];
    if (surprising) {
      const other = known[eye].find((k) => (gapThrough(read, k.power) ?? Infinity) <= LOOKS_LIKE);
      found.push(other ? { code: 'looksLike', name: other.name } : { code: 'surprise', gap, limit });
    }
    if (read.orderAxis !== null && read.lens.cylinder <= -AXIS_COUNTS) {
      const apart = Math.abs(((read.orderAxis - read.lens.axis + 270) % 180) - 90);
      if (apart > SURPRISE_AXIS + 1e-9 && found.length === 0) found.push({ code: 'axisFar', by: Math.round(apart) });
    }
    return found;
  };
  return { right: of('right'), left: of('left') };
}

/** Acuities of one eye, logMAR; null when not read. */
export interface EyeAcuities {
  readonly glasses: LogMar | null;
  readonly lens: LogMar | null;
  readonly over: LogMar | null;
  readonly pinhole: LogMar | null;
  /** The best this eye was ever recorded to see, with whatever. */
  readonly best?: LogMar | null;
  /** Sight that the over-refraction could not give back: cylinder left, a multifocal. */
  readonly expectedLoss?: LogMar;
  /** Pain, stain, an infiltrate or an only good eye: a single line asks. */
  readonly oneLineAsks?: boolean;
  /** Cylinder was looked for in the over-refraction. */
  readonly cylinderTested?: boolean;
  /** It is set for near: the lens alone cannot show its sight at far. */
  readonly nearEye?: boolean;
  /** Sight through the lens at near, the other eye covered. */
  readonly near?: LogMar | null;
}

export type SightDoubt =
  | { readonly code: 'minusNoLine'; readonly lines: number }
  | { readonly code: 'minusUnread' }
  | { readonly code: 'askCylinder'; readonly lines: number }
  | { readonly code: 'unrestored'; readonly lines: number }
  | { readonly code: 'pinholeHelps'; readonly lines: number }
  | { readonly code: 'pinholeNot' };

/**
 * The loss of sight that is asked about, logMAR: two lines, or a line more than what is expected; a single line where the eye
 * is at risk.
 * @example sightLimit({glasses: 0, lens: null, over: null, pinhole: null, oneLineAsks: true}) → 0.1
 * @source one line is the noise of the test: common practice; the figures: our own choice
 */
export const sightLimit = (a: EyeAcuities): LogMar => (a.oneLineAsks ? LINE : Math.max(TWO_LINES, (a.expectedLoss ?? 0) + LINE));

/** The best this eye is known to see: ever recorded, with glasses, or through the pinhole; null while nothing is. */
function bestKnown(a: EyeAcuities): LogMar | null {
  const known = [a.best ?? null, a.glasses, a.pinhole].filter((v) => v !== null);
  return known.length === 0 ? null : Math.min(...known);
}
const short = (a: LogMar, than: LogMar, by: LogMar): boolean => a - than >= by - 1e-9;

/**
 * What the acuities say against an over-refraction: minus that gains no line, a sphere that falls short of the glasses,
 * sight that nothing restores.
 * @param over at the trial frame; null when none was read
 * @example sightDoubts({glasses: 0, lens: 0.1, over: 0.1, pinhole: null}, {sphere: -0.5, cylinder: 0, axis: 180})[0].code → 'minusNoLine'
 * @source common practice
 */
export function sightDoubts(acuities: EyeAcuities, over: Refraction | null): readonly SightDoubt[] {
  const { lens, pinhole } = acuities;
  const doubts: SightDoubt[] = [];
  // Before a near eye minus only gives its far power back: nothing of it is ordered.
  if (!acuities.nearEye && over && over.sphere + over.cylinder / 2 < -1e-9) {
    if (lens === null || acuities.over === null) doubts.push({ code: 'minusUnread' });
    else if (linesGained(lens, acuities.over) < 1 - 1e-9) doubts.push({ code: 'minusNoLine', lines: linesGained(lens, acuities.over) });
  }
  const through = bestThroughLens(acuities);
  const best = bestKnown(acuities);
  if (through === null || best === null) return doubts;
  const lines = linesGained(through, best);
  if (over && over.cylinder === 0 && !acuities.cylinderTested && acuities.over !== null && short(through, best, LINE))
    doubts.push({ code: 'askCylinder', lines });
  if (!isUnrestored(acuities)) return doubts;
  doubts.push({ code: 'unrestored', lines });
  if (pinhole !== null) doubts.push(short(through, pinhole, LINE) ? { code: 'pinholeHelps', lines: linesGained(through, pinhole) } : { code: 'pinholeNot' });
  return doubts;
}

/**
 * Best sight through the lens: with the over-refraction where it was read. Of a near eye what it reads at near, or at far with its
 * far power given back.
 * @example bestThroughLens({glasses: 0, lens: 0.5, over: null, pinhole: null, nearEye: true}) → null
 */
export function bestThroughLens(a: EyeAcuities): LogMar | null {
  const read = [a.over, a.nearEye ? (a.near ?? null) : a.lens].filter((v) => v !== null);
  return read.length === 0 ? null : Math.min(...read);
}

/**
 * Does the lens, with its over-refraction, leave the eye short of the best it is known to see? Then the pinhole and the
 * cause are recorded before any order.
 * @example isUnrestored({glasses: 0, lens: 0.3, over: 0.2, pinhole: null}) → true
 */
export function isUnrestored(a: EyeAcuities): boolean {
  const through = bestThroughLens(a);
  const best = bestKnown(a);
  return through !== null && best !== null && short(through, best, sightLimit(a));
}

/** Causes that call for reading again: what was read went through a lens that was not as it should be. */
export const CAUSES_TO_PUT_RIGHT = ['insideOut', 'swapped', 'wrongLens', 'unsteady'] as const;

/** Why sight forbids an order. */
export type SightGate = 'sightUnrestored' | 'sightCauseFirst' | 'sightNearEye';

/**
 * Why sight forbids an order: not restored and nobody has recorded the pinhole and the cause, or the cause is one that is
 * put right first, or it is a near eye, which still has to see fully through its over-refraction. Null when nothing forbids it.
 * @example sightGate({glasses: 0, lens: 0.2, over: 0.2, pinhole: 0.2}, {cause: 'cornea'}) → null
 * @source common practice: the cause is recorded before any order
 */
export function sightGate(acuities: EyeAcuities, findings: LensFindings): SightGate | null {
  if (!isUnrestored(acuities)) return null;
  const { cause } = findings;
  if (cause === 'nearEye') return 'sightNearEye';
  if (acuities.pinhole === null || cause === undefined) return 'sightUnrestored';
  return CAUSES_TO_PUT_RIGHT.some((c) => c === cause) ? 'sightCauseFirst' : null;
}
