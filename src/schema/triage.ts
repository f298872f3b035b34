import { z } from 'zod';
import { DANGER_SIGNS } from '../core';
import { optionalText, timeText, uuid } from './fields';

/** A red eye, or any danger sign, as it was reported on the telephone or at the desk. */
export const triageForm = z
  .object({
    wearerId: uuid,
    signs: z
      .array(z.enum(DANGER_SIGNS, { error: 'required' }))
      .min(1, 'dangerRequired')
      .max(DANGER_SIGNS.length),
    onset: optionalText(200),
    /** Comes here today at a time, or was sent to emergency eye care. */
    goes: z.enum(['here', 'emergency'], { error: 'required' }),
    time: timeText.nullable().default(null),
  })
  .refine((form) => form.goes === 'emergency' || form.time !== null, { message: 'timeRequired', path: ['time'] });
