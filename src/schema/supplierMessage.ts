import { z } from 'zod';
import { gtin14, REFERENCE_MAX } from '../core';

/** What a supplier and a practice say to each other: JSON, one object a message; `docs/formats` has the same as JSON Schema. */

/** Most boxes of a line. */
const MOST_PACKS = 60;
const printable = (most: number) =>
  z
    .string()
    .min(1)
    .max(most)
    .regex(/^[\x20-\x7e]+$/);

/** A lens by its figures: dioptres, whole degrees, millimetres. */
const lens = z.strictObject({
  familyCode: printable(60),
  sphere: z.number().min(-30).max(30),
  cylinder: z.number().min(-12).max(0),
  axis: z.number().int().min(1).max(180),
  add: printable(20).nullable(),
  baseCurve: z.number().min(7).max(10).nullable(),
  diameter: z.number().min(12).max(18).nullable(),
});

/** Boxes of one line on the road. */
const shippedLine = z.strictObject({
  eye: z.enum(['right', 'left']),
  packs: z.number().int().min(1).max(MOST_PACKS),
  lens: lens.nullable().default(null),
  gtin: z
    .string()
    .regex(/^\d{14}$/)
    .refine((text) => gtin14(text) === text)
    .nullable()
    .default(null),
  lot: printable(20).nullable().default(null),
  expiresOn: z.iso.date().nullable().default(null),
});

const common = {
  version: z.literal(1),
  /** The message's own name: said twice, it is taken once. */
  id: printable(80),
  /** The practice's number of the order. */
  order: z.number().int().min(1),
  /** The supplier's name for it. */
  reference: printable(REFERENCE_MAX),
};

export const supplierMessage = z.discriminatedUnion('kind', [
  z.strictObject({ ...common, kind: z.literal('shipped'), shippedOn: z.iso.date(), expectedOn: z.iso.date(), lines: z.array(shippedLine).min(1).max(4) }),
  z.strictObject({ ...common, kind: z.literal('delayed'), expectedOn: z.iso.date() }),
  z.strictObject({ ...common, kind: z.literal('delivered'), deliveredOn: z.iso.date() }),
]);
export type SupplierMessage = z.infer<typeof supplierMessage>;

/** What a supplier that is asked for news answers: the messages after a place, and the place to ask from next. */
export const supplierNews = z.strictObject({ version: z.literal(1), messages: z.array(z.unknown()).max(200), cursor: printable(200) });

/** An order as it is sent. */
export const supplierOrder = z.strictObject({
  version: z.literal(1),
  number: z.number().int().min(1),
  kind: z.enum(['supply', 'trial']),
  /** `wearer`: straight to the address; the practice sees no box of it. */
  deliverTo: z.enum(['practice', 'wearer']),
  deliveryAddress: z.string().min(5).max(300).nullable(),
  lines: z
    .array(
      z.discriminatedUnion('mode', [
        z.strictObject({ eye: z.enum(['right', 'left']), mode: z.literal('final'), packs: z.number().int().min(1).max(MOST_PACKS), ...lens.shape }),
        z.strictObject({
          eye: z.enum(['right', 'left']),
          mode: z.literal('raw'),
          packs: z.number().int().min(1).max(MOST_PACKS),
          familyCode: printable(60),
          baseCurve: z.number().nullable(),
          diameter: z.number().nullable(),
          raw: z.looseObject({}),
        }),
      ]),
    )
    .min(1)
    .max(4),
});

/** Most of a message that is read, bytes. */
export const MESSAGE_MAX_BYTES = 64 * 1024;
