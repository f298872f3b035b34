import { z } from 'zod';
import { CLAIM_KINDS, CLAIM_STEPS } from '../core';
import { dayText, optionalText, timeText, uuid } from './fields';

const names = z.array(z.string().trim().min(1, 'required').max(80, 'tooLong')).max(40, 'tooLong');
/** A path under the supplier address that the server was started with, or an address of its own; nothing with a password in it. */
const endpoint = z
  .string()
  .trim()
  .max(200, 'tooLong')
  .refine(
    (text) => /^[a-z0-9][a-z0-9/_-]*$/i.test(text) || (/^https?:\/\//.test(text) && URL.canParse(text) && new URL(text).username === ''),
    'endpointWrong',
  );

/** `id` null: a new one. */
export const supplierForm = z
  .object({
    id: uuid.nullable(),
    version: z.number().int().min(0),
    name: z.string({ error: 'required' }).trim().min(1, 'required').max(80, 'tooLong'),
    makers: names,
    endpoint: endpoint.nullable(),
    telephone: optionalText(40),
    cutOff: timeText,
    minimumMinor: z.number({ error: 'notANumber' }).int('wholeNumber').min(0, 'moneyOutOfRange').max(1_000_000, 'moneyOutOfRange'),
    toWearers: z.boolean(),
    ended: z.boolean(),
  })
  .refine((form) => form.endpoint !== null || form.telephone !== null, { message: 'supplierWay', path: ['telephone'] });
export const supplierSecretForm = z.object({ supplierId: uuid });

export const orderPageForm = z.object({ orderId: uuid });
export const cancelOrderForm = z.object({ orderId: uuid, reason: z.string({ error: 'required' }).trim().min(3, 'reasonRequired').max(200, 'tooLong') });
/** Ordered by telephone: what the supplier said. */
export const telephonedForm = z.object({
  orderId: uuid,
  reference: z.string({ error: 'required' }).trim().min(1, 'required').max(60, 'tooLong'),
  dueOn: dayText('dayRequired'),
});
/** A parcel that was sent straight to the wearer: is it there? */
export const arrivedForm = z.object({ orderId: uuid, arrived: z.boolean() });

export const claimForm = z.object({
  orderId: uuid,
  orderLineId: uuid,
  kind: z.enum(CLAIM_KINDS, { error: 'required' }),
  packs: z.number({ error: 'notANumber' }).int('wholeNumber').min(1, 'packsReceived').max(60, 'packsReceived'),
  note: optionalText(400),
});
export const claimStepForm = z.object({ claimId: uuid, step: z.enum(CLAIM_STEPS, { error: 'required' }), note: optionalText(400) });
