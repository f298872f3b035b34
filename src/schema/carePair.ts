import { z } from 'zod';
import { PAIR_EFFECTS } from '../core';
import { uuid } from './fields';

export const carePairForm = z.object({
  productId: uuid,
  material: z.string({ error: 'required' }).trim().min(1, 'required').max(80, 'tooLong'),
  /** `none`: what was recorded of the pair holds no more. */
  effect: z.enum(PAIR_EFFECTS, { error: 'required' }),
  source: z.string({ error: 'required' }).trim().min(1, 'required').max(200, 'tooLong'),
});
