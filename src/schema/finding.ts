import { ACUITY_WAYS, COPIED_SIGNS, EYES, findingProblem, findingsConflict, LESION_KINDS, inTenths, lesionProblem } from '../core';
import { acuity, eye, inVisit, uuid } from './fields';
import { z } from 'zod';

const finding = z.object({ sign: z.string().max(30), value: z.union([z.number(), z.string().max(30)]) }).superRefine((f, ctx) => {
  const problem = findingProblem(f.sign, f.value);
  if (problem) ctx.addIssue({ code: 'custom', message: problem.code, params: { data: problem.data }, path: ['value'] });
});
const oneEye = z.array(finding).max(40);
/** Grades of earlier visits that are as they were, by the findings they are copied from. */
const asLastTime = z.array(uuid).max(COPIED_SIGNS.length).default([]);
/** What an eye sees without a contact lens; needs no power. */
const sight = z
  .array(z.object({ way: z.enum(ACUITY_WAYS), acuity }))
  .max(3)
  .default([]);
export const findingsForm = z
  .object({
    ...inVisit,
    right: oneEye,
    left: oneEye,
    rightSight: sight,
    leftSight: sight,
    rightAsLastTime: asLastTime,
    leftAsLastTime: asLastTime,
    /** Eyes whose lens comes off for it. */
    lensOff: z.array(eye).max(2).default([]),
  })
  .refine((form) => EYES.some((e) => form[e].length + form[`${e}Sight`].length + form[`${e}AsLastTime`].length > 0), {
    message: 'nothingToRecord',
    path: ['right'],
  })
  .superRefine((form, ctx) => {
    for (const e of EYES) {
      const findings = Object.fromEntries(form[e].map((f) => [f.sign, f.value]));
      for (const problem of findingsConflict(findings)) {
        const at = form[e].findIndex((f) => f.sign === problem.sign);
        ctx.addIssue({ code: 'custom', message: problem.code, params: { data: problem.data }, path: [e, at, 'value'] });
      }
    }
  });

const millimetres = z.number({ error: 'lesionNotANumber' });
/** Something drawn on a cornea: placed and measured. */
export const lesionForm = z
  .object({ ...inVisit, eye, kind: z.enum(LESION_KINDS), nasalMm: millimetres, upMm: millimetres, longMm: millimetres, acrossMm: millimetres })
  .superRefine((form, ctx) => {
    const problem = lesionProblem(form);
    if (problem) ctx.addIssue({ code: 'custom', message: problem.code, params: { data: problem.data }, path: ['longMm'] });
  })
  .transform((form) => ({ ...form, ...inTenths(form) }));
