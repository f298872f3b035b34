import type { IsoDate, IsoInstant } from '../units';

/**
 * What came of a call about lenses that run low: ordered; sight has changed, so somebody looks first; the prescription has run
 * out or is about to, so the examination comes first; a message was left; the wearer wants to wait; or
 * wears no more lenses from here.
 */
export const REORDER_OUTCOMES = ['ordered', 'sightChanged', 'examination', 'message', 'later', 'noLonger'] as const;
export type ReorderOutcome = (typeof REORDER_OUTCOMES)[number];

/** One such call. */
export interface ReorderCall {
  readonly id: string;
  readonly outcome: ReorderOutcome;
  readonly orderNumber: number | null;
  readonly laterOn: IsoDate | null;
  readonly note: string | null;
  readonly calledAt: IsoInstant;
  readonly calledByName: string;
}
