import { CARE_SYSTEMS } from '../core';
import { MOST_WHOLE, uuid } from './fields';
import { z } from 'zod';

export const careProductForm = z.object({
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
  ended: z.boolean(),
});
