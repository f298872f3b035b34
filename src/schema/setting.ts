import { isSettingKey, settingProblem, type SettingKey } from '../core';
import { uuid } from './fields';
import { z } from 'zod';

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
