import { z } from 'zod';
import { gtin14 } from '../core';
import { dayText, inVisit, lotText, optionalText, refractionText, uuid } from './fields';
import { lensSpec } from './lensOnEye';

/** Boxes of one eye, 0 for none. */
export const packCount = z.number({ error: 'notANumber' }).int('wholeNumber').min(0, 'packsOutOfRange').max(60, 'packsOutOfRange');
/** Trial lenses that the drawer lacks. `despiteReason`: why a lens that a judgement leaves out is tried all the same. */
export const orderTrialsForm = z
  .object({ ...inVisit, requestKey: uuid, right: lensSpec.nullable(), left: lensSpec.nullable(), despiteReason: optionalText(400) })
  .refine((form) => form.right !== null || form.left !== null, { message: 'oneEyeRequired', path: ['right'] });
/** `pastExpiryNote`: why a prescriber lets it last past the prescription's end. */
export const orderForm = z
  .object({ ...inVisit, requestKey: uuid, prescriptionId: uuid, rightPacks: packCount, leftPacks: packCount, pastExpiryNote: optionalText(400) })
  .refine((form) => form.rightPacks + form.leftPacks > 0, { message: 'packsRequired', path: ['rightPacks'] });
export const orderEventsForm = z.object({ orderIds: z.array(uuid).min(1).max(20) });
export const hastenForm = z.object({ orderId: uuid, visitId: uuid });

const gtinText = z.string().refine((text) => gtin14(text) === text, 'gtinWrong');
const boxCode = z.object({ gtin: gtinText, serial: z.string().min(1).max(20).nullable() });

/** Boxes of one eye that came: what stands on them. */
const received = z.object({
  packs: z.number({ error: 'notANumber' }).int('wholeNumber').min(1, 'packsReceived').max(60, 'packsReceived'),
  lot: lotText,
  expiresOn: dayText('expiryRequired'),
  /** Of a raw order, the power that the laboratory made; null where the order named the lens. */
  power: refractionText.nullable().default(null),
  /** Codes of the boxes that were scanned; boxes read by hand have none. */
  codes: z.array(boxCode).max(60, 'packsReceived').default([]),
});
/** What a scanned code names: asked before it is recorded. */
export const boxForm = z.object({ orderId: uuid, gtin: gtinText });
export const receiptForm = z
  .object({
    orderId: uuid,
    right: received.nullable(),
    left: received.nullable(),
    /** Why a day is believed although the drawer keeps this lot of trial lenses with another. */
    despiteReason: optionalText(200),
    /** Why a code of a box means another lens than was learned. */
    relearnReason: optionalText(200),
  })
  .refine((form) => form.right !== null || form.left !== null, { message: 'oneEyeRequired', path: ['right'] });

/** Boxes that lie here and go home: by their receipts. */
export const handOverBoxesForm = z.object({
  ...inVisit,
  orderId: uuid,
  receiptIds: z.array(uuid).min(1, 'required').max(20, 'required'),
  /** Name and birth date were asked of whoever takes them. */
  identityAsked: z.literal(true, { error: 'identityNotAsked' }),
  /** Why no lesson was needed; only for those who handle lenses already. */
  experienceNote: optionalText(400),
});

/** A label or a box that is about to be handed over, as it was scanned or typed. */
export const bagForm = z.object({ orderId: uuid, code: z.string().trim().min(1, 'required').max(400, 'tooLong') });
