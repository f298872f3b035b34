import { GEOMETRIES, MODALITIES } from '../core';
import { familyCode } from './family';
import { uuid } from './fields';
import { z } from 'zod';

export const houseListForm = z.object({
  modality: z.enum(MODALITIES, { error: 'required' }),
  geometry: z.enum(GEOMETRIES, { error: 'required' }),
  codes: z
    .array(familyCode)
    .max(3, 'houseListFull')
    .refine((codes) => new Set(codes).size === codes.length, 'houseListTwice'),
  /** The list the page knew; null for an empty cell. */
  lastId: uuid.nullable(),
});
