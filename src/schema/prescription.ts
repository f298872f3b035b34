import { z } from 'zod';
import { COPY_WAYS, PURPOSES } from '../core';
import { dayText, eye, inVisit, limited, optionalText, reason, uuid } from './fields';
import { lensSpec } from './lensOnEye';

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
    /** Why it runs shorter than the rules of the practice would have it. */
    expiryReason: optionalText(300),
    /** Of refraction and over-refraction that do not agree, the one that decides, by eye. */
    rightPicked: z.enum(['refraction', 'overRefraction']).nullable().default(null),
    leftPicked: z.enum(['refraction', 'overRefraction']).nullable().default(null),
    /** What is overridden, each with its sentence. */
    overrides: z
      .array(z.object({ eye: eye.nullable(), code: z.string().max(40), reason }))
      .max(20)
      .default([]),
    /** Which pair it is for: pairs for different purposes stand beside each other. */
    purpose: z.enum(PURPOSES).default('everyday'),
    daysPerWeek: z.number().int().min(1, 'daysPerWeek').max(7, 'daysPerWeek'),
  })
  .refine((form) => form.right !== null || form.left !== null, { message: 'oneEyeRequired', path: ['right'] });

export const copyForm = z.object({ ...inVisit, prescriptionId: uuid, how: z.enum(COPY_WAYS, { error: 'required' }) });
