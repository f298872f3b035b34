import { roundToStep, type Millimetres } from '../units';
import type { Findings } from './signs';

/** What is drawn on a cornea. */
export const LESION_KINDS = ['staining', 'infiltrate', 'ulcer'] as const;
export type LesionKind = (typeof LESION_KINDS)[number];

/** Something seen on a cornea: where its middle lies from the cornea's centre, and how far it reaches. */
export interface CornealLesion {
  readonly kind: LesionKind;
  /** Towards the nose, negative towards the temple. */
  readonly nasalMm: Millimetres;
  /** Upwards, negative downwards. */
  readonly upMm: Millimetres;
  /** Its longest measure. */
  readonly longMm: Millimetres;
  /** Across its longest measure. */
  readonly acrossMm: Millimetres;
}

/** Half of the widest cornea, with its limbus. */
const REACH: Millimetres = 7;
/** Steps in which a lesion is placed and measured: what a slit lamp's beam can be set to. Our own choice. */
export const LESION_STEP: Millimetres = 0.1;
export const LESION_LIMITS = { longMm: { min: 0.1, max: 12 }, acrossMm: { min: 0.1, max: 12 } } as const;
/** An infiltrate from this size on threatens sight. Source: from memory. */
export const LARGE_FROM: Millimetres = 2;
/** One that reaches within so far of the cornea's centre threatens sight. Source: from memory. */
export const CENTRAL_WITHIN: Millimetres = 3;
/** Cells in the anterior chamber, grade, from which sight is threatened. Source: from memory. */
export const CELLS_FROM = 1;

/**
 * What is wrong with a lesion, as a code with data; null when nothing is.
 * @example lesionProblem({ kind: 'ulcer', nasalMm: 9, upMm: 0, longMm: 1, acrossMm: 1 })?.code → 'lesionOffCornea'
 */
export function lesionProblem(l: CornealLesion): { readonly code: string; readonly data: Readonly<Record<string, number>> } | null {
  const figures = [l.nasalMm, l.upMm, l.longMm, l.acrossMm];
  if (!figures.every(Number.isFinite)) return { code: 'lesionNotANumber', data: {} };
  for (const key of ['longMm', 'acrossMm'] as const) {
    const { min, max } = LESION_LIMITS[key];
    if (l[key] < min - 1e-9 || l[key] > max + 1e-9) return { code: 'lesionSize', data: { value: l[key], min, max } };
  }
  if (l.acrossMm > l.longMm + 1e-9) return { code: 'lesionAcrossLonger', data: { long: l.longMm, across: l.acrossMm } };
  return Math.hypot(l.nasalMm, l.upMm) > REACH ? { code: 'lesionOffCornea', data: { max: REACH } } : null;
}

/**
 * A lesion in the steps in which it is placed and measured, half away from zero.
 * @example inTenths({ kind: 'ulcer', nasalMm: 1.25, upMm: -0.04, longMm: 1, acrossMm: 1 }).nasalMm → 1.3
 */
export function inTenths({ kind, nasalMm, upMm, longMm, acrossMm }: CornealLesion): CornealLesion {
  const tenth = (mm: Millimetres): Millimetres => roundToStep(mm, LESION_STEP, 'away');
  return { kind, nasalMm: tenth(nasalMm), upMm: tenth(upMm), longMm: tenth(longMm), acrossMm: tenth(acrossMm) };
}

/**
 * How near a lesion comes to the cornea's centre, mm: 0 where it reaches it.
 * @example nearestToCentre({ kind: 'infiltrate', nasalMm: 3, upMm: 4, longMm: 2, acrossMm: 1 }) → 4
 */
export const nearestToCentre = (l: CornealLesion): Millimetres => Math.max(0, Math.hypot(l.nasalMm, l.upMm) - l.longMm / 2);

/** Why sight is in danger: a code for its words. */
export const SIGHT_THREATS = ['cells', 'large', 'central', 'ring', 'dendrite', 'painBeyond'] as const;
export type SightThreat = (typeof SIGHT_THREATS)[number];

const eats = (l: CornealLesion): boolean => l.kind !== 'staining';

/**
 * What threatens the sight of an eye: cells in the chamber, an infiltrate or ulcer that is large or near the centre, a ring, a
 * dendrite, pain beyond what is seen.
 * @example sightThreats({ cells: 1 }, []) → ['cells']
 * @source cells, size and place: from memory; ring, dendrite, pain beyond the signs: common practice
 */
export function sightThreats(seen: Findings, lesions: readonly CornealLesion[]): readonly SightThreat[] {
  const of: Readonly<Record<SightThreat, boolean>> = {
    cells: typeof seen.cells === 'number' && seen.cells >= CELLS_FROM,
    large: lesions.some((l) => eats(l) && l.longMm >= LARGE_FROM - 1e-9),
    central: lesions.some((l) => eats(l) && nearestToCentre(l) <= CENTRAL_WITHIN + 1e-9),
    ring: seen.ring === 'seen',
    dendrite: seen.dendrite === 'seen',
    painBeyond: seen.painBeyond === 'yes',
  };
  return SIGHT_THREATS.filter((threat) => of[threat]);
}

/** The worst of what is drawn, as the rules read it; undefined where nothing is. @example worstLesion([]) → undefined */
export function worstLesion(lesions: readonly CornealLesion[]): LesionKind | undefined {
  return [...LESION_KINDS].reverse().find((kind) => lesions.some((l) => l.kind === kind));
}
