/** Steps of a visit, in the order in which they are usually done. The one list: screens, drafts and the database follow it. */
export const STEP_IDS = ['history', 'eyeHealth', 'refraction', 'lens', 'onEye', 'prescription', 'lesson', 'supply'] as const;
export type StepId = (typeof STEP_IDS)[number];

/** Kinds of visit. */
export const VISIT_KINDS = ['firstFit', 'refit', 'lesson', 'aftercare', 'collection'] as const;
export type VisitKind = (typeof VISIT_KINDS)[number];

/** Steps that open whatever stops a lens: there it is said, seen and referred. */
export const NEVER_LOCKED: readonly StepId[] = ['history', 'eyeHealth'];

/** What each kind of visit goes through. */
const STEPS_OF: Readonly<Record<VisitKind, readonly StepId[]>> = {
  firstFit: STEP_IDS,
  refit: STEP_IDS,
  lesson: STEP_IDS,
  aftercare: STEP_IDS,
  collection: STEP_IDS,
};

/**
 * The steps of a kind of visit, in order.
 * @example stepsOf('firstFit')[2] → 'refraction'
 */
export const stepsOf = (kind: VisitKind): readonly StepId[] => STEPS_OF[kind];

/**
 * The page of a step, as its address writes it.
 * @example stepSlug('eyeHealth') → 'eye-health'
 */
export const stepSlug = (step: string): string => step.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
