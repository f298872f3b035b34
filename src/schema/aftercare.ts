import { z } from 'zod';
import { ADVERSE_EVENTS, AFTERCARE_OUTCOMES, AFTERCARE_QUESTION_IDS, aftercareProblem } from '../core';
import { place, STAFF_WITHIN, staffWithin } from './appointment';
import { dayText, eye, inVisit, lotText, optionalText, uuid } from './fields';
import { visitKind } from './visit';

const answer = z
  .object({
    question: z.enum(AFTERCARE_QUESTION_IDS, { error: 'answerUnknown' }),
    eye: eye.nullable(),
    said: z.array(z.string().max(40)).max(12),
  })
  .superRefine((a, ctx) => {
    const code = aftercareProblem(a.question, a.said, a.eye);
    if (code !== null) ctx.addIssue({ code: 'custom', message: code, path: ['said'] });
  });
export const aftercareAnswersForm = z.object({ ...inVisit, answers: z.array(answer).min(1, 'nothingToRecord').max(10) });

export const endAftercareForm = z.object({
  ...inVisit,
  outcome: z.enum(AFTERCARE_OUTCOMES, { error: 'required' }),
  note: optionalText(400),
  /** Where and when the wearer is seen next. */
  next: z
    .object({ kind: visitKind, ...place })
    .refine(staffWithin, STAFF_WITHIN)
    .nullable()
    .default(null),
  unbookedReason: optionalText(200),
});

export const adverseEventForm = z.object({
  ...inVisit,
  eye,
  event: z.enum(ADVERSE_EVENTS, { error: 'required' }),
  beganOn: dayText('beganRequired'),
  /** What the box says, where it is another than the one on record. */
  lot: lotText.nullable().default(null),
  note: optionalText(400),
});

export const returnToWearForm = z.object({
  ...inVisit,
  eye,
  adverseEventId: uuid,
  newLens: z.boolean(),
  newCase: z.boolean(),
  dropsOff: z.boolean(),
});
