import { z } from 'zod';
import { SET_LENS_ENDS } from '../core';
import { dayText, inVisit, optionalText, uuid } from './fields';
import { lensSpec } from './lensOnEye';

/** Most lenses that are added to sets at once. */
const MOST = 60;
const number = z.string({ error: 'setNumber' }).trim().min(1, 'setNumber').max(20, 'tooLong');

/** Lenses of one diagnostic set that came, each with the number engraved on its vial. */
export const addSetLensesForm = z.object({
  lenses: z
    .array(z.object({ number, lens: lensSpec.omit({ familyId: true }), expiresOn: dayText('expiryRequired') }))
    .min(1, 'required')
    .max(MOST, 'tooLong')
    .refine((lenses) => new Set(lenses.map((l) => l.number.toLowerCase())).size === lenses.length, 'setNumberTwice'),
  familyId: uuid,
});

/** Lenses whose disinfection begins now, by their set's own instructions. */
export const disinfectForm = z.object({ diagnosticLensIds: z.array(uuid).min(1, 'required').max(MOST, 'tooLong') });

/** A lens that leaves its set for good. */
export const endSetLensForm = z.object({ diagnosticLensId: uuid, why: z.enum(SET_LENS_ENDS, { error: 'required' }) });

export const setLensForm = z.object({ diagnosticLensId: uuid });

/** Lenses of sets that go on an eye. */
export const putOnSetLensesForm = z
  .object({
    ...inVisit,
    right: uuid.nullable(),
    left: uuid.nullable(),
    /** Why a lens that a judgement leaves out is tried all the same. */
    despiteReason: optionalText(400),
  })
  .refine((form) => form.right !== null || form.left !== null, { message: 'oneEyeRequired', path: ['right'] })
  .refine((form) => form.right === null || form.right !== form.left, { message: 'oneLensOneEye', path: ['left'] });
