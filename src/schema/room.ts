import { z } from 'zod';
import { dayText, nameText, timeText, uuid, version } from './fields';

const name = nameText(60, 'nameRequired');
export const addRoomForm = z.object({ name });
/** A room's name, its place in the list, and whether it is used. */
export const changeRoomForm = z.object({ roomId: uuid, version, name, sortOrder: z.number().int().min(0).max(999), ended: z.boolean() });

/** When the practice is open on a weekday, both times or neither. */
export const openingHoursForm = z
  .object({ weekday: z.number().int().min(1).max(7), closed: z.literal(false), opens: timeText, closes: timeText })
  .refine((form) => form.opens < form.closes, { message: 'closesBeforeOpens', path: ['closes'] })
  .or(z.object({ weekday: z.number().int().min(1).max(7), closed: z.literal(true) }));
/** A day on which the practice is closed, or open after all. */
export const closedDayForm = z.object({ day: dayText('dayRequired'), name, closed: z.boolean() });
