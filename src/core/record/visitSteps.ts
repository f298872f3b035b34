/** Steps of a visit, in the order in which they are usually done. The one list: screens, drafts and the database follow it. */
export const STEP_IDS = [
  'redEye',
  'asLastTime',
  'wornNow',
  'aftercare',
  'history',
  'eyeHealth',
  'refraction',
  'nearVision',
  'lens',
  'onEye',
  'prescription',
  'lesson',
  'supply',
] as const;
export type StepId = (typeof STEP_IDS)[number];

/** Kinds of visit. */
export const VISIT_KINDS = [
  'firstFit',
  'refit',
  'fullAnnual',
  'lensAnnual',
  'shortFollowUp',
  'longFollowUp',
  'lesson',
  'collection',
  'reorder',
  'redEye',
] as const;
export type VisitKind = (typeof VISIT_KINDS)[number];

/** Steps that open whatever stops a lens: there it is said, seen and referred. */
export const NEVER_LOCKED: readonly StepId[] = ['redEye', 'asLastTime', 'wornNow', 'aftercare', 'history', 'eyeHealth'];

/**
 * What each kind of visit goes through, in its own order: whoever comes wearing lenses is read through them before they come off.
 * A step that a kind does not name can be opened all the same, and is listed once something stands in it.
 * @source common practice
 */
const STEPS_OF: Readonly<Record<VisitKind, readonly StepId[]>> = {
  // Nothing from here is on the eyes yet.
  firstFit: ['history', 'eyeHealth', 'refraction', 'nearVision', 'lens', 'onEye', 'prescription', 'lesson', 'supply'],
  refit: ['wornNow', 'history', 'eyeHealth', 'refraction', 'nearVision', 'lens', 'onEye', 'prescription', 'lesson', 'supply'],
  fullAnnual: ['asLastTime', 'wornNow', 'history', 'onEye', 'eyeHealth', 'refraction', 'nearVision', 'lens', 'prescription', 'supply'],
  // Examined elsewhere within the time that the practice has set: no refraction, no dilation.
  lensAnnual: ['asLastTime', 'wornNow', 'history', 'onEye', 'eyeHealth', 'prescription', 'supply'],
  // What the wearer reports is heard before anything is looked at.
  shortFollowUp: ['wornNow', 'aftercare', 'history', 'onEye', 'eyeHealth', 'prescription', 'supply'],
  longFollowUp: ['wornNow', 'aftercare', 'history', 'onEye', 'eyeHealth', 'refraction', 'nearVision', 'lens', 'prescription', 'lesson', 'supply'],
  lesson: ['history', 'eyeHealth', 'lesson', 'supply'],
  collection: ['supply', 'lesson'],
  reorder: ['wornNow', 'history', 'supply'],
  // What is seen and how it looks comes first; what was worn, and the rest, after it.
  redEye: ['redEye', 'history', 'wornNow', 'eyeHealth', 'aftercare'],
};

/**
 * The steps of a kind of visit, in order.
 * @example stepsOf('firstFit')[2] → 'refraction'
 */
export const stepsOf = (kind: VisitKind): readonly StepId[] => STEPS_OF[kind];

/**
 * The steps that a visit lists: those of its kind, then those beside them that something stands in, or that is open. Near vision is
 * listed for whom it concerns.
 * @param isUsed whether something was recorded in a step that the kind does not name
 * @param presbyope whether near sight is a matter here
 * @example stepsShown('collection', 'supply', () => false, false) → ['supply', 'lesson']
 */
export function stepsShown(kind: VisitKind, open: StepId, isUsed: (step: StepId) => boolean, presbyope: boolean): readonly StepId[] {
  const wanted = (step: StepId): boolean => step !== 'nearVision' || presbyope || step === open || isUsed(step);
  return [...STEPS_OF[kind].filter(wanted), ...STEP_IDS.filter((step) => !STEPS_OF[kind].includes(step) && (step === open || isUsed(step)))];
}

/** Kinds at which lenses that were worn for a while are judged: a final prescription need not wait any longer. Common practice. */
const FOLLOWS: readonly VisitKind[] = ['fullAnnual', 'lensAnnual', 'shortFollowUp', 'longFollowUp', 'reorder'];
/** Are lenses judged here that were worn for a while? @example isFollowUp('firstFit') → false */
export const isFollowUp = (kind: VisitKind): boolean => FOLLOWS.includes(kind);

/**
 * The page of a step, as its address writes it.
 * @example stepSlug('eyeHealth') → 'eye-health'
 */
export const stepSlug = (step: string): string => step.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
