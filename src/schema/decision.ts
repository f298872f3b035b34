import { ADVISED_MODALITIES } from '../core';
import { inVisit } from './fields';
import { z } from 'zod';

export const decideForm = z.object({
  ...inVisit,
  modality: z.enum(ADVISED_MODALITIES, { error: 'required' }),
  wear: z.enum(['day', 'overnight'], { error: 'required' }),
  reason: z
    .string()
    .trim()
    .max(400, 'tooLong')
    .nullable()
    .default(null)
    .transform((text) => (text === '' ? null : text)),
});
