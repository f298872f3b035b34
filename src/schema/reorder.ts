import { z } from 'zod';
import { REORDER_OUTCOMES } from '../core';
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
    note: optionalText(400),
  })
  .refine((form) => form.rightPacks + form.leftPacks > 0, { message: 'packsRequired', path: ['rightPacks'] });

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
