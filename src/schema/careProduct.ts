import { CARE_SYSTEMS, disinfects } from '../core';
import { MOST_WHOLE, uuid } from './fields';
import { z } from 'zod';

/** A figure that may not be known yet. */
const wholeWithin = (min: number, max: number, code: string) =>
  z.number({ error: 'notANumber' }).int('wholeNumber').min(min, code).max(max, code).nullable().default(null);

export const careProductForm = z
  .object({
    productId: uuid.nullable(),
    /** The version the page knew; 0 for a new product. */
    version: z.number().int().min(0).max(MOST_WHOLE),
    system: z.enum(CARE_SYSTEMS, { error: 'required' }),
    maker: z.string({ error: 'required' }).trim().min(1, 'required').max(80, 'tooLong'),
    name: z.string({ error: 'required' }).trim().min(1, 'required').max(80, 'tooLong'),
    contents: z.string({ error: 'required' }).trim().min(1, 'required').max(120, 'tooLong'),
    lastsDays: z.number({ error: 'notANumber' }).int('wholeNumber').min(1, 'lastsDaysRange').max(365, 'lastsDaysRange'),
    price: z.number({ error: 'notANumber' }).min(0, 'priceRange').max(10_000, 'priceRange'),
    includesCase: z.boolean(),
    ownLabel: z.boolean().default(false),
    soakMinutes: wholeWithin(1, 1440, 'soakRange'),
    storeDays: wholeWithin(1, 365, 'storeRange'),
    discardDays: wholeWithin(1, 730, 'discardRange'),
    catalystDays: wholeWithin(1, 365, 'catalystRange'),
    ended: z.boolean(),
  })
  .superRefine((form, ctx) => {
    if (form.catalystDays !== null && form.system !== 'peroxide') ctx.addIssue({ code: 'custom', message: 'catalystOfPeroxide', path: ['catalystDays'] });
    if (form.soakMinutes !== null && !disinfects(form.system))
      ctx.addIssue({ code: 'custom', message: 'disinfectsNothing', path: ['soakMinutes'], params: { data: { name: form.name } } });
  });
