import { z } from 'zod';
import { DRIVING_WORDS, NEAR_SIGNS, NEAR_WAYS, nearFindingProblem } from '../core';
import { inVisit, optionalText } from './fields';

/** Findings of near sight, each a number or a word. */
export const nearFindingsForm = z.object({
  ...inVisit,
  findings: z
    .array(
      z.object({ sign: z.enum(NEAR_SIGNS), value: z.union([z.number(), z.string()]) }).superRefine((form, ctx) => {
        const wrong = nearFindingProblem(form.sign, form.value);
        if (wrong) ctx.addIssue({ code: 'custom', message: wrong.code, path: ['value'], params: { data: wrong.data } });
      }),
    )
    .min(1, 'nothingToRecord')
    .max(NEAR_SIGNS.length),
});

/** How near is to be served; why, where it is not what was recommended. */
export const nearWayForm = z.object({ ...inVisit, way: z.enum(NEAR_WAYS, { error: 'required' }), reason: optionalText(200) });

/** What was said of driving with lenses that serve near. */
export const drivingForm = z.object({ ...inVisit, said: z.enum(DRIVING_WORDS, { error: 'required' }) });
