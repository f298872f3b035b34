import { z } from 'zod';
import { LOSS_REASONS, MOST_BRIDGED, REORDER_OUTCOMES } from '../core';
import { dayText, optionalText, uuid } from './fields';
import { packCount } from './order';

/** Lenses ordered on the telephone, without a visit by the wearer. */
export const reorderForm = z
  .object({
    wearerId: uuid,
    requestKey: uuid,
    prescriptionId: uuid,
    rightPacks: packCount,
    leftPacks: packCount,
    /** None of the danger signs: asked today, and said. */
    noDanger: z.literal(true, { error: 'dangerNotAsked' }),
    /** Sees as before: asked today, and said. */
    sightSame: z.literal(true, { error: 'sightNotAsked' }),
    pastExpiryNote: optionalText(400),
    /** Where a parcel is sent straight to the wearer; none: it comes to the practice. */
    deliveryAddress: optionalText(300).refine((text) => text === null || text.length >= 5, 'addressShort'),
    note: optionalText(400),
  })
  .refine((form) => form.rightPacks + form.leftPacks > 0, { message: 'packsRequired', path: ['rightPacks'] });

const bridged = z.number({ error: 'notANumber' }).int('wholeNumber').min(0, 'bridgeCount').max(MOST_BRIDGED, 'bridgeCount');
/** Trial lenses of the lens worn that go home until its boxes come. */
export const bridgeForm = z
  .object({
    wearerId: uuid,
    prescriptionId: uuid,
    right: bridged,
    left: bridged,
    noDanger: z.literal(true, { error: 'dangerNotAsked' }),
    /** Name and birth date were asked of whoever takes them. */
    identityAsked: z.literal(true, { error: 'identityNotAsked' }),
  })
  .refine((form) => form.right + form.left > 0, { message: 'bridgeCount', path: ['right'] });

/** Trial lenses that did not go home after all: by the visit that kept them. */
export const bridgeWithdrawalForm = z.object({ visitId: uuid, reason: z.string().trim().min(3, 'required').max(400, 'tooLong') });

/** A call after which nothing is ordered. */
export const reorderCallForm = z
  .object({
    wearerId: uuid,
    outcome: z.enum(
      REORDER_OUTCOMES.filter((o) => o !== 'ordered'),
      { error: 'required' },
    ),
    laterOn: dayText('dayRequired').nullable().default(null),
    note: optionalText(400),
  })
  .refine((form) => (form.outcome === 'later') === (form.laterOn !== null), { message: 'dayRequired', path: ['laterOn'] });

export const reorderPageForm = z.object({ wearerId: uuid });

/** Most lenses of an eye that are said to be gone at once: a pack of dailies. */
const MOST_LOST = 90;

/** Lenses at home that are gone before their time. */
export const lossForm = z.object({
  wearerId: uuid,
  eye: z.enum(['right', 'left'], { error: 'required' }),
  lenses: z.number({ error: 'notANumber' }).int('notANumber').min(1, 'lossCount').max(MOST_LOST, 'lossCount'),
  why: z.enum(LOSS_REASONS, { error: 'required' }),
  lostOn: dayText('dayRequired'),
});
export const lossWithdrawalForm = z.object({ lossId: uuid });

/** A page of those whose lenses run low, or who lapsed: after which wearer. */
export const dueForm = z.object({ lapsed: z.boolean().default(false), after: z.object({ dueOn: z.iso.date(), wearerId: uuid }).nullable().default(null) });
