import { z } from 'zod';
import {
  ACUITY_WAYS,
  EYES,
  findingProblem,
  findingsConflict,
  isSettingKey,
  QUESTIONS,
  settingProblem,
  STOP_ENDINGS,
  type QuestionId,
  type SettingKey,
} from '../core';
import { acuity, eye, inVisit, reason, uuid } from './fields';

/** Shapes of history, eye health, stops, advice, referral, pictures and settings. Messages are problem codes. */

const questionId = z.enum(QUESTIONS.map((q) => q.id) as [QuestionId, ...QuestionId[]], { error: 'answerNotOffered' });
const answer = z.object({
  question: questionId,
  /** Null takes an answer of this visit back. */
  value: z.union([z.string().max(200), z.number(), z.array(z.string().max(80)).max(20), z.null()]),
  note: z
    .string()
    .trim()
    .max(200, 'tooLong')
    .nullable()
    .default(null)
    .transform((text) => (text === '' ? null : text)),
});
export const historyForm = z.object({ ...inVisit, answers: z.array(answer).min(1, 'nothingToRecord').max(60) });

const finding = z.object({ sign: z.string().max(30), value: z.union([z.number(), z.string().max(30)]) }).superRefine((f, ctx) => {
  const problem = findingProblem(f.sign, f.value);
  if (problem) ctx.addIssue({ code: 'custom', message: problem.code, params: { data: problem.data }, path: ['value'] });
});
const oneEye = z.array(finding).max(40);
/** What an eye sees without a contact lens; needs no power. */
const sight = z
  .array(z.object({ way: z.enum(ACUITY_WAYS), acuity }))
  .max(3)
  .default([]);
export const findingsForm = z
  .object({ ...inVisit, right: oneEye, left: oneEye, rightSight: sight, leftSight: sight })
  .refine((form) => form.right.length + form.left.length + form.rightSight.length + form.leftSight.length > 0, { message: 'nothingToRecord', path: ['right'] })
  .superRefine((form, ctx) => {
    for (const e of EYES) {
      const findings = Object.fromEntries(form[e].map((f) => [f.sign, f.value]));
      for (const problem of findingsConflict(findings)) {
        const at = form[e].findIndex((f) => f.sign === problem.sign);
        ctx.addIssue({ code: 'custom', message: problem.code, params: { data: problem.data }, path: [e, at, 'value'] });
      }
    }
  });

export const alertForm = z.object({ ...inVisit, answerId: uuid });
export const passForm = z.object({ ...inVisit, rule: z.string().max(40), reason });
export const endStopForm = z.object({ ...inVisit, stopId: uuid, how: z.enum(STOP_ENDINGS), reason });
export const referralForm = z.object({ ...inVisit, stopId: uuid });
export const referralStepForm = z.object({
  ...inVisit,
  referralId: uuid,
  step: z.enum(['lensOff', 'phoned', 'printed', 'leftWithLetter', 'calledNextDay']),
});
export const decideForm = z.object({
  ...inVisit,
  modality: z.enum(['daily', 'twoWeekly', 'monthly'], { error: 'required' }),
  wear: z.enum(['day', 'overnight'], { error: 'required' }),
  reason: z
    .string()
    .trim()
    .max(400, 'tooLong')
    .nullable()
    .default(null)
    .transform((text) => (text === '' ? null : text)),
});

export const pictureForm = z.object({
  ...inVisit,
  eye,
  title: z.string().trim().max(120, 'tooLong'),
  declaredType: z.string().max(80),
  bytes: z.instanceof(Uint8Array, { error: 'pictureUnreadable' }),
});
export const readPictureForm = z.object({ pictureId: uuid });

export const settingForm = z
  .object({
    key: z.string().refine((key): key is SettingKey => isSettingKey(key), 'settingNotOffered'),
    value: z.union([z.string(), z.number(), z.boolean()]),
    /** The change that was last when the page was read; null when the default held. */
    lastChangeId: uuid.nullable(),
  })
  .superRefine((form, ctx) => {
    if (!isSettingKey(form.key)) return;
    const problem = settingProblem(form.key, form.value);
    if (problem) ctx.addIssue({ code: 'custom', message: problem.code, params: { data: problem.data }, path: ['value'] });
  });
