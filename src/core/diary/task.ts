import { daysBetween } from '../calendar/dates';
import type { IsoDate } from '../units';

/** What somebody must do later: call a wearer, chase a supplier or a letter, call a wearer back in, or anything else. */
export const TASK_KINDS = ['call', 'chase', 'recall', 'other'] as const;
export type TaskKind = (typeof TASK_KINDS)[number];
/** Why the product itself makes a task. */
export const TASK_BECAUSE = ['missedAppointment', 'trialsCame', 'redEye', 'request', 'notSeenAgain'] as const;
export type TaskBecause = (typeof TASK_BECAUSE)[number];
export const TASK_EVENTS = ['made', 'changed', 'done', 'reopened', 'withdrawn'] as const;
export type TaskEventKind = (typeof TASK_EVENTS)[number];

/** How a task stands on a day. */
export type TaskStanding =
  { readonly kind: 'done' } | { readonly kind: 'late'; readonly byDays: number } | { readonly kind: 'today' } | { readonly kind: 'later' };

/** @example taskStanding({ dueOn: '2026-11-22', done: false }, '2026-11-24') → { kind: 'late', byDays: 2 } */
export function taskStanding(task: { readonly dueOn: IsoDate; readonly done: boolean }, today: IsoDate): TaskStanding {
  if (task.done) return { kind: 'done' };
  const byDays = daysBetween(task.dueOn, today);
  return byDays > 0 ? { kind: 'late', byDays } : { kind: byDays === 0 ? 'today' : 'later' };
}
