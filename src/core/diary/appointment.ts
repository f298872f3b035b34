import { millisecondsOf } from '../calendar/dates';
import type { Role } from '../people/roles';
import type { VisitKind } from '../record/visitSteps';
import type { IsoInstant } from '../units';
import { OWN, TRADE, type Source } from '../advice/source';

export const APPOINTMENT_STATES = ['booked', 'arrived', 'done', 'missed', 'cancelled'] as const;
export type AppointmentState = (typeof APPOINTMENT_STATES)[number];
/** What happens to an appointment. `undone`: it is again what it was before the change before. */
export const APPOINTMENT_EVENTS = ['booked', 'moved', 'arrived', 'late', 'missed', 'cancelled', 'done', 'undone'] as const;
export type AppointmentEventKind = (typeof APPOINTMENT_EVENTS)[number];

/**
 * Where and when somebody is seen. The wearer holds the room for `chairMinutes`; whoever sees them is needed for the first
 * `staffMinutes` of these: while lenses settle the room is taken and the person is free.
 */
export interface Slot {
  readonly roomId: string | null;
  readonly staffId: string | null;
  readonly startsAt: IsoInstant;
  readonly chairMinutes: number;
  readonly staffMinutes: number;
}

/** Wearer minutes and staff minutes, apart. */
export interface Minutes {
  readonly chair: number;
  readonly staff: number;
}
/**
 * How long each kind of visit usually takes; whoever books may say otherwise.
 * A lesson needs its teacher throughout and ends at 60 minutes (common practice); torics are judged after 10 to 15 minutes on
 * the eye (common practice), in which nobody need stand by.
 */
export const USUAL_MINUTES: Readonly<Record<VisitKind, Minutes & { readonly source: Source }>> = {
  firstFit: { chair: 60, staff: 35, source: OWN },
  refit: { chair: 45, staff: 25, source: OWN },
  lesson: { chair: 60, staff: 60, source: TRADE },
  fullAnnual: { chair: 40, staff: 30, source: OWN },
  lensAnnual: { chair: 25, staff: 20, source: OWN },
  shortFollowUp: { chair: 15, staff: 10, source: OWN },
  longFollowUp: { chair: 30, staff: 20, source: OWN },
  collection: { chair: 10, staff: 10, source: OWN },
  reorder: { chair: 10, staff: 10, source: OWN },
  redEye: { chair: 30, staff: 30, source: OWN },
};

/** Who sees a wearer for what, best suited first. @source common practice; each role's rights are in `people/roles` */
export const SEEN_BY: Readonly<Record<VisitKind, readonly Role[]>> = {
  firstFit: ['prescriber', 'technician'],
  refit: ['prescriber', 'technician'],
  lesson: ['technician', 'prescriber'],
  fullAnnual: ['prescriber'],
  lensAnnual: ['prescriber', 'technician'],
  shortFollowUp: ['prescriber', 'technician'],
  longFollowUp: ['prescriber', 'technician'],
  collection: ['coordinator', 'technician', 'prescriber'],
  reorder: ['technician', 'coordinator', 'prescriber'],
  redEye: ['prescriber'],
};

/** Those who may see a wearer for a kind of visit, best suited first. @param people in the order of the practice */
export function suitedTo<Person extends { readonly roles: readonly Role[] }>(kind: VisitKind, people: readonly Person[]): Person[] {
  const rank = (person: Person): number => SEEN_BY[kind].findIndex((role) => person.roles.includes(role));
  return people.filter((person) => rank(person) >= 0).sort((a, b) => rank(a) - rank(b));
}

/** Does it still hold its room, its person and its wearer? */
export const takesPlace = (state: AppointmentState): boolean => state !== 'cancelled' && state !== 'missed';

/** Somebody who is not there so many minutes after their time is late. @source own choice */
export const LATE_AFTER_MINUTES = 5;
/** … and is offered to be called a no-show after so many. @source common practice */
export const MISSED_AFTER_MINUTES = 15;

/** How an appointment stands at a moment: what was said of it, and what the clock says of one that nobody came to. */
export type Standing =
  | { readonly kind: 'arrived' | 'done' | 'missed' | 'cancelled' }
  /** Minutes to go; with what the wearer said of being late counted in. */
  | { readonly kind: 'booked'; readonly inMinutes: number }
  | { readonly kind: 'late' | 'overdue'; readonly byMinutes: number };

/**
 * @param now milliseconds since the epoch
 * @example standingOf({ state: 'booked', startsAt: '2026-11-24T10:00:00Z', lateMinutes: 0 }, millisecondsOf('2026-11-24T10:07:00Z')) → { kind: 'late', byMinutes: 7 }
 */
export function standingOf(
  appointment: { readonly state: AppointmentState; readonly startsAt: IsoInstant; readonly lateMinutes: number },
  now: number,
): Standing {
  const { state } = appointment;
  if (state !== 'booked') return { kind: state };
  const by = Math.floor((now - millisecondsOf(appointment.startsAt)) / 60_000) - appointment.lateMinutes;
  if (by >= MISSED_AFTER_MINUTES) return { kind: 'overdue', byMinutes: by };
  if (by >= LATE_AFTER_MINUTES) return { kind: 'late', byMinutes: by };
  return { kind: 'booked', inMinutes: Math.max(0, -by) };
}
