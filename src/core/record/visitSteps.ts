/** Steps of a visit, in the order in which they are usually done. The one list: screens, drafts and the database follow it. */
export const STEP_IDS = ['wornNow', 'history', 'eyeHealth', 'refraction', 'lens', 'onEye', 'prescription', 'lesson', 'supply'] as const;
export type StepId = (typeof STEP_IDS)[number];

/** Kinds of visit. */
export const VISIT_KINDS = ['firstFit', 'refit', 'lesson', 'aftercare', 'collection'] as const;
export type VisitKind = (typeof VISIT_KINDS)[number];

/** Steps that open whatever stops a lens: there it is said, seen and referred. */
export const NEVER_LOCKED: readonly StepId[] = ['wornNow', 'history', 'eyeHealth'];

/** Steps of whoever has no lenses from here yet. */
const WITHOUT_LENSES: readonly StepId[] = STEP_IDS.filter((id) => id !== 'wornNow');

/** What each kind of visit goes through. */
const STEPS_OF: Readonly<Record<VisitKind, readonly StepId[]>> = {
  firstFit: WITHOUT_LENSES,
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

/** The step that a visit begins with: who comes for boxes is not asked first. @example firstStep('aftercare') → 'wornNow' */
export const firstStep = (kind: VisitKind): StepId => (kind === 'collection' ? 'supply' : (stepsOf(kind)[0] ?? 'history'));

/**
 * The page of a step, as its address writes it.
 * @example stepSlug('eyeHealth') → 'eye-health'
 */
export const stepSlug = (step: string): string => step.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
