import { z } from 'zod';
import { EYES, HELD_ANSWERS, NEAR_TASK_IDS, TASK_CM } from '../core';
import { acuity, eye, inVisit, uuid } from './fields';

const task = {
  task: z.enum(NEAR_TASK_IDS, { error: 'required' }),
  distanceCm: z.number().int().min(TASK_CM.min, 'distanceOutOfRange').max(TASK_CM.max, 'distanceOutOfRange'),
};
const onEyes = { ...inVisit, rightLensOnEyeId: uuid, leftLensOnEyeId: uuid };

/** What both eyes see together through a pair, task by task, and what a held quarter did. */
export const pairReadingForm = z
  .object({
    ...onEyes,
    tasks: z
      .array(
        z.object({
          ...task,
          acuity: acuity.nullable().default(null),
          satisfaction: z.number({ error: 'satisfactionRequired' }).int().min(0).max(10),
          covered: z
            .enum(EYES as ['right', 'left'])
            .nullable()
            .default(null),
        }),
      )
      .max(NEAR_TASK_IDS.length * 3),
    held: z.array(z.object({ ...task, eye, by: z.union([z.literal(0.25), z.literal(-0.25)]), answer: z.enum(HELD_ANSWERS) })).max(32),
  })
  .refine((form) => form.tasks.length + form.held.length > 0, { message: 'nothingToRecord', path: ['tasks'] });

/** The one change that is made next. */
export const pairChangeForm = z.object({
  ...onEyes,
  change: z.union([
    z.object({ kind: z.literal('sphere'), eye, by: z.union([z.literal(0.25), z.literal(-0.25)]) }),
    z.object({ kind: z.literal('add'), eye }),
    z.object({ kind: z.literal('swap') }),
    z.object({ kind: z.literal('toric'), eye }),
  ]),
});
