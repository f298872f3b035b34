import { z } from 'zod';
import { isReachable, looksLikeDay, REQUEST_ANSWERS } from '../core';
import { dayText, limited, optionalText, refractionText, timeText, uuid, lensAdd } from './fields';

const text = (max: number) => z.string().trim().max(max, 'tooLong').default('');
const askedLens = z.object({
  power: refractionText,
  add: lensAdd.nullable().default(null),
  lensName: text(120),
  baseCurveMm: limited('baseCurveMm').nullable(),
  diameterMm: limited('diameterMm').nullable(),
  boxes: z.number({ error: 'notANumber' }).int('wholeNumber').min(0, 'packsOutOfRange').max(60, 'packsOutOfRange'),
});
/** Where the answer goes: a day typed by mistake would never be reached. */
export const contact = text(120).superRefine((typed, ctx) => {
  if (typed === '') return;
  if (looksLikeDay(typed)) ctx.addIssue({ code: 'custom', message: 'contactIsADay', params: { data: { typed } } });
  else if (!isReachable(typed)) ctx.addIssue({ code: 'custom', message: 'contactNotReachable', params: { data: { typed } } });
});

/** A seller's request typed in as it came. What it lacks is said, and kept as lacking: it counts all the same until somebody says not. */
export const requestForm = z
  .object({
    sellerName: text(120),
    sellerContact: contact,
    wearerName: text(120),
    wearerAddress: text(200),
    wearerId: uuid.nullable().default(null),
    askedOn: z.union([z.literal('').transform(() => null), dayText('dayRequired'), z.null()]).default(null),
    receivedOn: dayText('dayRequired'),
    receivedTime: timeText,
    right: askedLens.nullable(),
    left: askedLens.nullable(),
  })
  .refine((form) => form.sellerName !== '' || form.sellerContact !== '', { message: 'sellerRequired', path: ['sellerName'] });

export const matchRequestForm = z.object({ requestId: uuid, wearerId: uuid });
export const answerRequestForm = z
  .object({
    requestId: uuid,
    /** Answers that whoever presses has seen: two people never give the same one. */
    seen: z.number().int().nonnegative().max(1000),
    answer: z.enum(REQUEST_ANSWERS, { error: 'required' }),
    reason: optionalText(400),
  })
  .refine((form) => form.answer !== 'invalid' || form.reason !== null, { message: 'invalidReason', path: ['reason'] });
