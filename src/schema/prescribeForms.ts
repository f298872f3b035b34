import { z } from 'zod';
import { dayText, inVisit, limited, optionalText, uuid } from './fields';
import { lensSpec } from './measureForms';

/** One eye: a lens in final figures, or, raw, the lens that was on it with the curve to order. */
const prescribedEye = z.discriminatedUnion('mode', [
  z.object({ mode: z.literal('final'), lens: lensSpec, triedLensOnEyeId: uuid.nullable() }),
  z.object({ mode: z.literal('raw'), triedLensOnEyeId: uuid, baseCurve: limited('baseCurveMm'), diameter: limited('diameterMm') }),
]);
export const signForm = z
  .object({
    ...inVisit,
    password: z.string({ error: 'passwordRequired' }).min(1, 'passwordRequired').max(200),
    right: prescribedEye.nullable(),
    left: prescribedEye.nullable(),
    expiresOn: dayText('expiryRequired'),
    waitNote: optionalText(600),
    daysPerWeek: z.number().int().min(1, 'daysPerWeek').max(7, 'daysPerWeek'),
  })
  .refine((form) => form.right !== null || form.left !== null, { message: 'oneEyeRequired', path: ['right'] });
