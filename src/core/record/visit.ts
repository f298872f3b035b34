import type { VisitKind } from './visitSteps';

export interface VisitRow {
  readonly id: string;
  readonly practiceId: string;
  readonly wearerId: string;
  readonly kind: VisitKind;
  readonly openedAt: string;
  readonly closedAt: string | null;
  readonly version: number;
}
