import { dayText, inVisit, MOST_WHOLE, nameText, uuid } from './fields';
import { z } from 'zod';
import { STEP_IDS, VISIT_KINDS, VISIT_PAGES } from '../core';

export const visitKind = z.enum(VISIT_KINDS, { error: 'required' });
/** What a visit costs, in the practice's money; null: as the settings say. */
const fee = z.number({ error: 'feeShape' }).min(0, 'feeShape').max(100_000, 'feeShape').multipleOf(0.01, 'feeShape').nullable().default(null);
export const openVisitForm = z.object({ wearerId: uuid, kind: visitKind, appointmentId: uuid.nullable().default(null), fee });
export const changeVisitForm = z.object({ ...inVisit, kind: visitKind, fee });
/** A full examination somewhere else: on a day that was, by somebody named. */
export const examinedForm = z.object({ wearerId: uuid, examinedOn: dayText('dayRequired'), byWhom: nameText(120, 'nameRequired') });
export const readVisitForm = z.object({ visitId: uuid, page: z.enum(VISIT_PAGES) });
/** `version`: the one that the page shows. */
export const readNewerForm = readVisitForm.extend({ version: z.number().int().nonnegative().max(MOST_WHOLE) });
export const closeVisitForm = z.object(inVisit);
export const draftForm = z.object({
  visitId: uuid,
  step: z.enum(STEP_IDS),
  body: z.record(z.string().max(60), z.string().max(2000)),
  sequence: z.number().int().nonnegative().max(Number.MAX_SAFE_INTEGER),
});
