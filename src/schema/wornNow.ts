import { z } from 'zod';
import { MODALITIES, WORN_HOW } from '../core';
import { inVisit, refractionText, timeText, uuid } from './fields';

/** Most days that a lens may have been in without a break: the longest that any is approved for is a month. */
const MOST_DAYS = 31;

/** What a lens is called: from the box, or as the wearer says. */
const lensName = z.string({ error: 'lensNameRequired' }).trim().min(2, 'lensNameRequired').max(120, 'tooLong');

/** What was answered of one eye. A lens is named as it was shown, so that nobody says yes to another. */
const answer = z.discriminatedUnion('answer', [
  z.object({ answer: z.literal('yes'), lensId: uuid }),
  z.object({ answer: z.literal('oldPair'), handOverId: uuid }),
  /** The lens that counts as worn on the other eye is on this one. */
  z.object({ answer: z.literal('mixed'), lensId: uuid }),
  z.object({
    answer: z.literal('boughtElsewhere'),
    description: lensName,
    /** Null when nobody knows the power: then nothing can be read against it. */
    power: refractionText.nullable(),
    modality: z.enum(MODALITIES).default('monthly'),
  }),
  /** Nobody knows what such a lens is: it is named only so far as it can be. */
  z.object({ answer: z.literal('someoneElses'), description: lensName }),
  z.object({ answer: z.literal('lost') }),
  z.object({ answer: z.literal('glasses') }),
]);

export const wornNowForm = z
  .object({
    ...inVisit,
    right: answer.nullable(),
    left: answer.nullable(),
    /** When they went in: a time of day, and how many days ago; null where none is in. */
    since: z
      .object({
        time: timeText,
        daysAgo: z.number({ error: 'daysAgoRange' }).int('daysAgoRange').min(0, 'daysAgoRange').max(MOST_DAYS, 'daysAgoRange').default(0),
      })
      .nullable(),
    /** How it is known which lens it is. */
    how: z.enum(WORN_HOW).default('wearerSaid'),
  })
  .refine((form) => form.right !== null || form.left !== null, { message: 'oneEyeRequired', path: ['right'] })
  .refine((form) => form.since !== null || [form.right, form.left].every((a) => a === null || a.answer === 'lost' || a.answer === 'glasses'), {
    message: 'sinceRequired',
    path: ['since', 'time'],
  });
