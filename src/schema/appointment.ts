import { z } from 'zod';
import { dayText, optionalText, timeText, uuid, version } from './fields';
import { visitKind } from './visit';

const chairMinutes = z.number({ error: 'minutesShape' }).int('minutesShape').min(5, 'minutesShape').max(480, 'minutesShape');
const staffMinutes = z.number({ error: 'minutesShape' }).int('minutesShape').min(0, 'minutesShape').max(480, 'minutesShape');
export const place = {
  day: dayText('dayRequired'),
  time: timeText,
  chairMinutes,
  staffMinutes,
  roomId: uuid.nullable(),
  staffId: uuid.nullable(),
  /** Why it is booked all the same: over another one, or outside the hours. */
  despite: optionalText(200),
};
export const staffWithin = (form: { readonly chairMinutes: number; readonly staffMinutes: number }): boolean => form.staffMinutes <= form.chairMinutes;
export const STAFF_WITHIN = { message: 'staffMinutesMore', path: ['staffMinutes'] };

export const bookForm = z.object({ wearerId: uuid, kind: visitKind, note: optionalText(200), ...place }).refine(staffWithin, STAFF_WITHIN);
const changed = { appointmentId: uuid, version };
export const moveForm = z.object({ ...changed, ...place }).refine(staffWithin, STAFF_WITHIN);
export const markForm = z.object({ ...changed, as: z.enum(['arrived', 'missed', 'cancelled'], { error: 'required' }), reason: optionalText(200) });
export const lateForm = z.object({ ...changed, minutes: z.number({ error: 'lateShape' }).int('lateShape').min(1, 'lateShape').max(240, 'lateShape') });
/** `despite`: why it goes back to a place that somebody has taken meanwhile. */
export const undoAppointmentForm = z.object({ ...changed, despite: optionalText(200) });
export const appointmentForm = z.object({ appointmentId: uuid });

/** A day of the diary, today when none is named; and whom somebody wants to book there. */
export const diaryForm = z.object({ day: dayText('dayRequired').nullable().default(null), wearerId: uuid.nullable().default(null) });
/** What is looked for: a kind of visit, minutes, and a room, a person and a wearer where it must be these. */
export const freeForm = z.object({
  kind: visitKind,
  from: dayText('dayRequired'),
  chairMinutes,
  staffMinutes,
  roomId: uuid.nullable(),
  staffId: uuid.nullable(),
  wearerId: uuid.nullable(),
});
