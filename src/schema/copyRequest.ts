import { z } from 'zod';
import { COPY_REQUEST_ENDS } from '../core';
import { dayText, nameText, optionalText, timeText, uuid } from './fields';
import { contact } from './request';

/** Who acts for a wearer, and where the copy goes. */
export const copyRequestForm = z.object({
  wearerId: uuid,
  agentName: nameText(120, 'agentRequired'),
  agentContact: contact.refine((typed) => typed.length >= 2, 'agentContactRequired'),
  receivedOn: dayText('dayRequired'),
  receivedTime: timeText,
});
export const endCopyRequestForm = z
  .object({
    copyRequestId: uuid,
    how: z.enum(COPY_REQUEST_ENDS, { error: 'required' }),
    prescriptionId: uuid.nullable().default(null),
    reason: optionalText(400),
  })
  .refine((form) => form.how !== 'refused' || form.reason !== null, { message: 'refusedWhy', path: ['reason'] })
  .refine((form) => form.how !== 'sent' || form.prescriptionId !== null, { message: 'whichPrescription', path: ['prescriptionId'] });
