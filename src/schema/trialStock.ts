import { z } from 'zod';
import { TRIAL_LEAVES } from '../core';
import { dayText, lotText, optionalText, uuid } from './fields';
import { lensSpec } from './lensOnEye';

/** Most lenses of one lot that a drawer is told of at once: more is a slip of the hand. */
const MOST = 500;
const count = z.number({ error: 'notANumber' }).int('wholeNumber');

/** Trial lenses of one power that came. */
export const receiveTrialsForm = z.object({
  lens: lensSpec,
  lot: lotText,
  expiresOn: dayText('expiryRequired'),
  count: count.min(1, 'trialCount').max(MOST, 'trialCount'),
  /** Why a day is believed although this lot is kept with another. */
  despiteReason: optionalText(200),
});

/** Lenses that are thrown away. */
export const discardTrialsForm = z.object({
  trialStockId: uuid,
  count: count.min(1, 'trialCount').max(MOST, 'trialCount'),
  why: z.enum(TRIAL_LEAVES, { error: 'required' }),
});

/** A lot counted by hand; `seen` is what the page showed. */
export const countTrialsForm = z.object({ trialStockId: uuid, seen: count.min(0), counted: count.min(0, 'trialCounted').max(MOST, 'trialCounted') });

export const trialMovementsForm = z.object({ trialStockId: uuid });
