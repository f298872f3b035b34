import type { VisitKind } from './visitSteps';

/** What somebody decided that a visit is and costs, beside what was proposed. */
export interface VisitDecision {
  /** In the practice's money. */
  readonly fee: number;
  readonly proposedKind: VisitKind;
  readonly proposedFee: number;
  /** Why that was proposed: a code. */
  readonly because: string;
  readonly decidedByName: string;
}

/** A full examination somewhere else. */
export interface ExaminedElsewhere {
  readonly examinedOn: string;
  readonly byWhom: string;
  readonly recordedByName: string;
}

export interface VisitRow {
  readonly id: string;
  readonly practiceId: string;
  readonly wearerId: string;
  readonly kind: VisitKind;
  readonly openedAt: string;
  readonly closedAt: string | null;
  readonly version: number;
}
