import { millisecondsOf } from '../calendar/dates';
import { standingOf, type AppointmentState } from './appointment';

/** What is to be done about an appointment: go on with its visit, begin it, receive its wearer, call one who did not come. */
export type DueAct = 'goOn' | 'begin' | 'receive' | 'call';
export interface DueAppointment {
  readonly state: AppointmentState;
  readonly startsAt: string;
  readonly lateMinutes: number;
  readonly staffId: string | null;
  readonly visitId: string | null;
  readonly visitOpen: boolean;
}
export interface Due<Row> {
  readonly row: Row;
  readonly act: DueAct;
  /** From now; zero when it is due already. */
  readonly inMinutes: number;
  /** Is it this person's own? */
  readonly own: boolean;
}

/** What is due about one appointment; null when nothing is. @param fits whether this person may begin visits */
function dueOf<Row extends DueAppointment>(row: Row, now: number, fits: boolean): Omit<Due<Row>, 'own'> | null {
  if (row.visitOpen) return fits ? { row, act: 'goOn', inMinutes: 0 } : null;
  if (row.visitId !== null) return null;
  const standing = standingOf(row, now);
  switch (standing.kind) {
    case 'arrived':
      return fits ? { row, act: 'begin', inMinutes: 0 } : null;
    case 'booked':
      return { row, act: fits ? 'begin' : 'receive', inMinutes: standing.inMinutes };
    case 'late':
    case 'overdue':
      return { row, act: 'call', inMinutes: 0 };
    case 'done':
    case 'missed':
    case 'cancelled':
      return null;
  }
}

/**
 * What is due next, soonest first; of what is due at once, the visit under way before those who wait, and one's own before
 * others'.
 * @param who the person who looks, and which visits they may begin
 * @param now milliseconds since the epoch
 */
export function nextDue<Row extends DueAppointment>(
  rows: readonly Row[],
  who: { readonly personId: string; readonly fits: (row: Row) => boolean },
  now: number,
): Due<Row>[] {
  const rank: Readonly<Record<DueAct, number>> = { goOn: 0, begin: 1, receive: 1, call: 2 };
  return rows
    .flatMap((row) => {
      const due = dueOf(row, now, who.fits(row));
      return due === null ? [] : [{ ...due, own: row.staffId === who.personId }];
    })
    .sort(
      (a, b) =>
        a.inMinutes - b.inMinutes ||
        Number(b.own) - Number(a.own) ||
        rank[a.act] - rank[b.act] ||
        millisecondsOf(a.row.startsAt) - millisecondsOf(b.row.startsAt),
    );
}
