import { linesGained, LINE, type LogMar } from '../optics/acuity';
import { fromPowerVector, subtractVectors, toPowerVector } from '../optics/powerVector';
import type { Refraction } from '../optics/refraction';
import { powerOnEye } from '../rotation/compensate';
import type { Degrees, Dioptres, Eye } from '../units';
import type { LensFindings } from './lensSigns';

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
  readonly rotationLeft: Degrees;
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
const strength = (power: Refraction): Dioptres => {
  const v = toPowerVector(power);
  return Math.hypot(v.m, v.j0, v.j45);
};
const gapOf = (eye: OverRead): Dioptres | null =>
  eye.need === null ? null : strength(minus(minus(eye.need, powerOnEye(eye.lens, eye.rotationLeft)), eye.over));

/** Are the lenses of the two eyes exchanged? Equal and opposite over-refractions that the exchange explains. */
function swapped(right: OverRead, left: OverRead): boolean {
  const sum = minus(right.over, minus({ sphere: 0, cylinder: 0, axis: 180 }, left.over));
  if (strength(right.over) < SWAP_FROM || strength(left.over) < SWAP_FROM || strength(sum) > LOOKS_LIKE) return false;
  // Two lenses of one power may change places unseen: then something else is the cause.
  const explained = minus(powerOnEye(right.lens, right.rotationLeft), powerOnEye(left.lens, left.rotationLeft));
  return strength(minus(right.over, explained)) <= SURPRISE_BOTH_EYES;
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
    if (strength(read.lens) >= NO_LENS_FROM && strength(minus(read.over, read.lens)) <= LOOKS_LIKE) return [{ code: 'noLens' }];
    if (surprising) {
      const other = known[eye].find((k) => read.need !== null && strength(minus(minus(read.need, k.power), read.over)) <= LOOKS_LIKE);
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
}

export type SightDoubt =
  | { readonly code: 'minusNoLine'; readonly lines: number }
  | { readonly code: 'minusUnread' }
  | { readonly code: 'askCylinder'; readonly lines: number }
  | { readonly code: 'unrestored'; readonly lines: number }
  | { readonly code: 'pinholeHelps'; readonly lines: number }
  | { readonly code: 'pinholeNot' };

/** Lines short of the glasses from which sight counts as not restored. Our own choice: a single line. */
export const UNRESTORED: LogMar = LINE;
const short = (a: LogMar, than: LogMar): boolean => a - than >= UNRESTORED - 1e-9;

/**
 * What the acuities say against an over-refraction: minus that gains no line, a sphere that falls short of the glasses,
 * sight that nothing restores.
 * @param over at the trial frame; null when none was read
 * @example sightDoubts({glasses: 0, lens: 0.1, over: 0.1, pinhole: null}, {sphere: -0.5, cylinder: 0, axis: 180})[0].code → 'minusNoLine'
 * @source common practice
 */
export function sightDoubts(acuities: EyeAcuities, over: Refraction | null): readonly SightDoubt[] {
  const { glasses, lens, pinhole } = acuities;
  const doubts: SightDoubt[] = [];
  if (over && over.sphere + over.cylinder / 2 < -1e-9) {
    if (lens === null || acuities.over === null) doubts.push({ code: 'minusUnread' });
    else if (linesGained(lens, acuities.over) < 1 - 1e-9) doubts.push({ code: 'minusNoLine', lines: linesGained(lens, acuities.over) });
  }
  const best = bestThroughLens(acuities);
  if (best !== null && glasses !== null && short(best, glasses)) {
    const lines = linesGained(best, glasses);
    if (over && over.cylinder === 0 && acuities.over !== null) doubts.push({ code: 'askCylinder', lines });
    doubts.push({ code: 'unrestored', lines });
    if (pinhole !== null) doubts.push(short(best, pinhole) ? { code: 'pinholeHelps', lines: linesGained(best, pinhole) } : { code: 'pinholeNot' });
  }
  return doubts;
}

/** Best sight through the lens: with the over-refraction where it was read. */
export const bestThroughLens = (a: EyeAcuities): LogMar | null => (a.lens === null ? a.over : a.over === null ? a.lens : Math.min(a.lens, a.over));

/**
 * Does the lens, with its over-refraction, leave the eye short of what it sees with glasses? Then the pinhole and the
 * cause are recorded before any order.
 * @example isUnrestored({glasses: 0, lens: 0.2, over: 0.1, pinhole: null}) → true
 */
export function isUnrestored(a: EyeAcuities): boolean {
  const best = bestThroughLens(a);
  return best !== null && a.glasses !== null && short(best, a.glasses);
}

/** Causes that call for reading again: what was read went through a lens that was not as it should be. */
export const CAUSES_TO_PUT_RIGHT = ['insideOut', 'swapped', 'wrongLens', 'unsteady'] as const;

/**
 * Why sight forbids an order: not restored and nobody has recorded the pinhole and the cause, or the cause is one that is
 * put right first. Null when nothing forbids it.
 * @example sightGate({glasses: 0, lens: 0.2, over: 0.2, pinhole: 0.2}, {cause: 'cornea'}) → null
 * @source common practice: the cause is recorded before any order
 */
export function sightGate(acuities: EyeAcuities, findings: LensFindings): 'sightUnrestored' | 'sightCauseFirst' | null {
  if (!isUnrestored(acuities)) return null;
  const { cause } = findings;
  if (acuities.pinhole === null || cause === undefined) return 'sightUnrestored';
  return CAUSES_TO_PUT_RIGHT.some((c) => c === cause) ? 'sightCauseFirst' : null;
}
