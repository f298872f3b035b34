import { z } from 'zod';
import { RECALL_OUTCOMES } from '../core';
import { lotText, optionalText, uuid } from './fields';

const reason = z.string({ error: 'required' }).trim().min(3, 'reasonRequired').max(400, 'tooLong');

/** `familyCode` null: whoever's lens has this lot. */
export const recallForm = z.object({ lot: lotText, familyCode: z.string().trim().min(1).max(60).nullable(), reason });
export const recallPageForm = z.object({ recallId: uuid });
export const recallCallForm = z.object({ recallId: uuid, wearerId: uuid, outcome: z.enum(RECALL_OUTCOMES, { error: 'required' }), note: optionalText(400) });
export const liftRecallForm = z.object({ recallId: uuid, reason });
