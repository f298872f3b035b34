import { dayIn } from '../calendar/dates';
import type { IsoDate } from '../units';
import type { ComingAppointment } from './wearerFile';
import type { VisitKind } from './visitSteps';

/** Kinds of visit after which a new prescription may be signed. Common practice. */
const EXAMINATIONS: readonly VisitKind[] = ['firstFit', 'refit', 'fullAnnual', 'lensAnnual'];

/**
 * The examination that is booked after today, from which a new prescription may come; null for none. What is booked for today is
 * the visit that runs.
 * @param until the day by which it must have been; null for any
 */
export const examinationBooked = <A extends Pick<ComingAppointment, 'kind' | 'state' | 'startsAt'>>(
  appointments: readonly A[],
  of: { readonly today: IsoDate; readonly until: IsoDate | null; readonly timeZone: string },
): A | null =>
  appointments.find((a) => {
    const day = dayIn(a.startsAt, of.timeZone);
    return EXAMINATIONS.includes(a.kind) && a.state === 'booked' && day > of.today && (of.until === null || day <= of.until);
  }) ?? null;
