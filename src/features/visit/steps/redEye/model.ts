import { nearestToCentre, type CornealLesion, type Eye, type LesionKind, type SignId } from '@/core';
import type { DraftOf } from '../../shell/draftKeys';

/** View logic of a red eye, without React. */

/** Signs that are pressed of each eye, in the order in which they are looked for: sight comes before them. */
export const PRESSED: readonly SignId[] = ['pain', 'light', 'discharge', 'cells', 'dendrite', 'ring', 'painBeyond', 'suspected', 'anaesthetic', 'lensKept'];
/** Grades that are pressed; halves between them are graded on Eye health. */
export const GRADES: Readonly<Partial<Record<SignId, readonly number[]>>> = {
  pain: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10],
  cells: [0, 0.5, 1, 2, 3, 4],
};
/** Asked of the wearer here; the rest stands on the page of the history. */
export const ASKED_HERE = ['water', 'sleptIn'] as const;
/** And these in words. */
export const TYPED_HERE = ['onset', 'solution'] as const;

type Body = DraftOf<'redEye'>;
const millimetres = (text: string | undefined): number => (/^-?\d+([.,]\d+)?$/.test((text ?? '').trim()) ? Number((text ?? '').trim().replace(',', '.')) : NaN);

/** What is being placed on one cornea, as it is kept while it is typed; null for nothing. */
export function placingOf(body: Body, eye: Eye): CornealLesion | null {
  const kind = body[`${eye}Kind`];
  if (kind !== 'staining' && kind !== 'infiltrate' && kind !== 'ulcer') return null;
  return {
    kind,
    nasalMm: millimetres(body[`${eye}Nasal`]),
    upMm: millimetres(body[`${eye}Up`]),
    longMm: millimetres(body[`${eye}Long`]),
    acrossMm: millimetres(body[`${eye}Across`]),
  };
}
/** A lesion of a kind that is just being taken up: small, at the centre of the cornea, to be dragged from there. */
export const freshLesion = (kind: LesionKind): CornealLesion => ({ kind, nasalMm: 0, upMm: 0, longMm: 1, acrossMm: 1 });

/** Can it be drawn as it is typed? */
export const isDrawable = (lesion: CornealLesion | null): lesion is CornealLesion =>
  lesion !== null && [lesion.nasalMm, lesion.upMm, lesion.longMm, lesion.acrossMm].every(Number.isFinite) && lesion.longMm > 0 && lesion.acrossMm > 0;

/** Figures of a lesion for its words. */
export const figuresOf = (lesion: CornealLesion) => ({
  long: lesion.longMm.toFixed(1),
  across: lesion.acrossMm.toFixed(1),
  distance: nearestToCentre(lesion).toFixed(1),
});
