import { z } from 'zod';
import { CARE_SYSTEMS, GEOMETRIES, MODALITIES } from '../core';
import { dayText, uuid } from './fields';
import { CATALOGUE_COLUMNS } from './catalogue';

/** Shapes of what is done to the lens library and the care products. Messages are problem codes. */
const familyCode = z
  .string({ error: 'required' })
  .trim()
  .regex(/^[a-z0-9][a-z0-9-]{0,59}$/, 'catalogueCode');
const cells = z.partialRecord(z.enum(CATALOGUE_COLUMNS), z.string().max(400, 'tooLong'));

export const familyForm = z.object({ code: familyCode });
export const saveFamilyForm = z.object({
  code: familyCode,
  /** The newest version the page knew; 0 for a family that is new. */
  baseVersion: z.number().int().min(0).max(100_000),
  startsOn: dayText('startRequired'),
  /** One line a block, read like the lines of a catalogue file. */
  lines: z.array(cells).min(1, 'blockRequired').max(400, 'tooManyBlocks'),
  /** False shows what would follow; true does it. */
  confirm: z.boolean(),
});
export const endFamilyForm = z.object({
  code: familyCode,
  /** Null takes an ending back. */
  lastOrderOn: dayText('lastOrderRequired').nullable(),
  replacedBy: familyCode.nullable(),
  reason: z.string({ error: 'reasonRequired' }).trim().min(3, 'reasonRequired').max(400, 'tooLong'),
});
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
export const careProductForm = z.object({
  productId: uuid.nullable(),
  /** The version the page knew; 0 for a new product. */
  version: z.number().int().min(0),
  system: z.enum(CARE_SYSTEMS, { error: 'required' }),
  maker: z.string({ error: 'required' }).trim().min(1, 'required').max(80, 'tooLong'),
  name: z.string({ error: 'required' }).trim().min(1, 'required').max(80, 'tooLong'),
  contents: z.string({ error: 'required' }).trim().min(1, 'required').max(120, 'tooLong'),
  lastsDays: z.number({ error: 'notANumber' }).int('wholeNumber').min(1, 'lastsDaysRange').max(365, 'lastsDaysRange'),
  price: z.number({ error: 'notANumber' }).min(0, 'priceRange').max(10_000, 'priceRange'),
  includesCase: z.boolean(),
  ended: z.boolean(),
});

export const importUploadForm = z.object({
  fileName: z.string({ error: 'required' }).trim().min(1, 'required').max(200, 'tooLong'),
  bytes: z.instanceof(Uint8Array, { error: 'required' }),
});
export const importForm = z.object({ importId: uuid });
export const takeImportForm = z.object({ importId: uuid, startsOn: dayText('startRequired') });
