import { CATALOGUE_COLUMNS } from './catalogue';
import { dayText } from './fields';
import { z } from 'zod';

/** Shapes of what is done to the lens library and the care products. Messages are problem codes. */
export const familyCode = z
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
/** `known`: the state of the library that the page holds. */
export const familiesForm = z.object({ known: z.string().max(40).nullable().default(null) });
