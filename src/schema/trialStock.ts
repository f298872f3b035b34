import { z } from 'zod';
import { gtin14, TRIAL_LEAVES } from '../core';
import { dayText, lotText, optionalText, uuid } from './fields';
import { lensSpec } from './lensOnEye';

/** Most lenses of one lot that a drawer is told of at once: more is a slip of the hand. */
const MOST = 500;
const count = z.number({ error: 'notANumber' }).int('wholeNumber');

const gtinText = z.string().refine((text) => gtin14(text) === text, 'gtinWrong');

/** Trial lenses of one power that came. */
export const receiveTrialsForm = z.object({
  lens: lensSpec,
  lot: lotText,
  expiresOn: dayText('expiryRequired'),
  count: count.min(1, 'trialCount').max(MOST, 'trialCount'),
  /** Why a day is believed although this lot is kept with another. */
  despiteReason: optionalText(200),
  /** The code that was scanned: what it names is learned, where it was not known. */
  gtin: gtinText.nullable().default(null),
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

/** What a scanned code names: asked before it is received. */
export const trialBoxForm = z.object({ gtin: gtinText });

/** Most lenses of a power that a drawer keeps. */
const MOST_KEPT = 100;
/** How many of some lenses are kept at least. */
export const trialLevelsForm = z.object({
  levels: z
    .array(z.object({ lens: lensSpec, least: count.min(0, 'trialLevel').max(MOST_KEPT, 'trialLevel') }))
    .min(1, 'required')
    .max(2000, 'tooLong'),
});

/** Lenses that were asked of a supplier for the drawer. */
export const restockForm = z.object({
  lines: z
    .array(z.object({ lensId: uuid, count: count.min(1, 'trialCount').max(MOST, 'trialCount') }))
    .min(1, 'required')
    .max(500, 'tooLong'),
});

/** Lenses that somebody else borrows. */
export const lendTrialsForm = z.object({
  trialStockId: uuid,
  count: count.min(1, 'trialCount').max(MOST, 'trialCount'),
  lentTo: z.string().trim().min(2, 'lentToRequired').max(120, 'tooLong'),
  dueOn: dayText('dayRequired').nullable().default(null),
});
/** A loan that is over: how many came back unopened. */
export const endLoanForm = z.object({ loanId: uuid, returned: count.min(0, 'trialCounted').max(MOST, 'trialCounted') });
