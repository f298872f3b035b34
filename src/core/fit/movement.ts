import { roundToStep, type Millimetres } from '../units';

/** On the eye a soft lens is narrower than its label says. Source: common practice. */
export const ON_EYE_SHRINKAGE_MM: Millimetres = 0.25;
/** Iris taken while none was measured. Source: mean of published figures, from memory. */
export const MEAN_HVID_MM: Millimetres = 11.8;

/**
 * How far a centred lens reaches past the limbus on each side: the ruler that is always in view at the slit lamp.
 * @param diameter labelled, mm
 * @param hvid horizontal visible iris diameter, mm
 * @example centredOverlap(14.2, 11.8) → 1.075
 * @source common practice
 */
export const centredOverlap = (diameter: Millimetres, hvid: Millimetres): Millimetres => (diameter - ON_EYE_SHRINKAGE_MM - hvid) / 2;

/**
 * Movement from the share of the overlap that the edge travelled: half-way to the limbus is half of the overlap.
 * @param share 0 to 2 of the overlap
 * @returns mm, to 0.05
 * @example movementByOverlap(0.5, 1.075) → 0.55
 */
export const movementByOverlap = (share: number, overlap: Millimetres): Millimetres => roundToStep(share * Math.max(0, overlap), 0.05, 'away');

/**
 * Overlap on the four sides of a lens that sits off-centre, mm; negative where the limbus shows.
 * @example overlaps(1, {nose: 0.3, up: -0.2}).nose → 1.3
 */
export const overlaps = (
  centred: Millimetres,
  off: { readonly nose: Millimetres; readonly up: Millimetres },
): Readonly<Record<'up' | 'down' | 'nose' | 'ear', Millimetres>> => {
  const tenth = (value: number): number => roundToStep(value, 0.1, 'away');
  return { up: tenth(centred + off.up), down: tenth(centred - off.up), nose: tenth(centred + off.nose), ear: tenth(centred - off.nose) };
};

/**
 * The two schools of movement on blink, mm. Inside `wanted` it is as it should be; inside `accepted` it passes; a band of
 * `watch` is settled by another sign that is good. Outside all of them nothing settles it. Source: common practice.
 */
export const MOVEMENT_SCHOOLS = {
  classic: { wanted: [0.5, 1], accepted: [0.5, 1], watch: [0.3, 1.5] },
  modern: { wanted: [0.2, 0.4], accepted: [0.2, 0.5], watch: [0.1, 1] },
} as const;
export type MovementSchool = keyof typeof MOVEMENT_SCHOOLS;
/** Movement in up gaze, mm: under the one slow, over the other loose, whatever the school. From memory. */
export const UP_GAZE = { from: 0.25, to: 0.5 } as const;
/** Under this movement, mm, nothing settles that a lens is tight. Source: common practice. */
export const STUCK_UNDER: Millimetres = 0.1;
