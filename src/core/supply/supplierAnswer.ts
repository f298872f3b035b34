import { addYears } from '../calendar/dates';
import type { IsoDate } from '../units';

/** What a supplier answered to an order. */
export interface SupplierAnswer {
  /** The order's number, said back. */
  readonly order: number;
  /** The supplier's own name for it. */
  readonly reference: string;
  readonly state: 'acknowledged' | 'backordered';
  readonly dueOn: IsoDate;
}

/** Why an answer cannot be taken for the answer to this order. */
export const ANSWER_DOUBTS = ['otherOrder', 'referenceUsed', 'duePast', 'dueFar', 'notUnderstood', 'redirected', 'tooLong'] as const;
export type AnswerDoubt = (typeof ANSWER_DOUBTS)[number];

/** Longest name that a supplier may give an order, characters. */
export const REFERENCE_MAX = 60;

/**
 * Does an answer fit the order that it came for? It says the order's number back, uses a name that no other order has, and
 * promises a day from the day of the order to a year ahead.
 * @param used is the reference another order's?
 * @returns null when it fits
 * @example answerDoubt({ order: 7, reference: 'A1', state: 'acknowledged', dueOn: '2026-11-20' }, { number: 7, placedOn: '2026-11-24' }, false) → 'duePast'
 */
export function answerDoubt(answer: SupplierAnswer, order: { readonly number: number; readonly placedOn: IsoDate }, used: boolean): AnswerDoubt | null {
  if (answer.order !== order.number) return 'otherOrder';
  if (used) return 'referenceUsed';
  if (answer.dueOn < order.placedOn) return 'duePast';
  return answer.dueOn > addYears(order.placedOn, 1) ? 'dueFar' : null;
}
