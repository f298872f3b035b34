import { z } from 'zod';
import { CARE_REASONS } from '../core';
import { inVisit, optionalText, uuid } from './fields';

export const prescribeCareForm = z
  .object({
    ...inVisit,
    productId: uuid,
    chosenFor: z.enum(CARE_REASONS, { error: 'required' }),
    note: optionalText(400),
    /** Why it is prescribed although something speaks against it. */
    overrideNote: optionalText(400),
  })
  .superRefine((form, ctx) => {
    if (form.chosenFor === 'other' && (form.note ?? '').length < 3) ctx.addIssue({ code: 'custom', message: 'careReasonRequired', path: ['note'] });
  });
