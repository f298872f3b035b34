import type { StepId, VisitKind } from './visitSteps';

/** Kinds of visit that begin with something else than what is worn now. By itself: lists of visits need no more of the steps. */
const OTHERWISE: Readonly<Partial<Record<VisitKind, StepId>>> = {
  firstFit: 'history',
  fullAnnual: 'asLastTime',
  lensAnnual: 'asLastTime',
  lesson: 'history',
  collection: 'supply',
  redEye: 'redEye',
};

/** The step that a visit begins with: the first of its kind. @example firstStep('longFollowUp') → 'wornNow' */
export const firstStep = (kind: VisitKind): StepId => OTHERWISE[kind] ?? 'wornNow';
