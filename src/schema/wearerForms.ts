import { z } from 'zod';
import { EARLIEST_BIRTH_DATE } from '../core';
import { dayText, inVisit, optionalText, uuid, version } from './fields';

const identity = {
  name: z.string({ error: 'nameRequired' }).trim().min(1, 'nameRequired').max(120, 'tooLong'),
  birthDate: dayText('birthDateRequired').superRefine((day, ctx) => {
    if (day < EARLIEST_BIRTH_DATE) ctx.addIssue({ code: 'custom', message: 'birthDateTooEarly' });
  }),
  telephone: optionalText(40),
  occupation: optionalText(80),
  guardian: optionalText(120),
};

export const createWearerForm = z.object({ ...identity, sameNameIsAnother: z.boolean().optional() });
export const updateWearerForm = z.object({ ...identity, wearerId: uuid, version });
export const searchForm = z.object({ search: z.string().trim().max(120).default('') });
export const wearerForm = z.object({ wearerId: uuid });
export const emptyForm = z.object({});

export const visitKind = z.enum(['firstFit', 'refit', 'lesson', 'aftercare', 'collection'], { error: 'required' });
export const openVisitForm = z.object({ wearerId: uuid, kind: visitKind, appointmentId: uuid.nullable().default(null) });
export const visitForm = z.object({ visitId: uuid });
export const closeVisitForm = z.object(inVisit);
export const draftForm = z.object({
  visitId: uuid,
  step: z.enum(['history', 'eyeHealth', 'power', 'lens', 'onEye', 'final', 'teach', 'supply']),
  body: z.record(z.string().max(60), z.string().max(2000)),
  sequence: z.number().int().nonnegative(),
});
