import { z } from 'zod';
import { TASK_KINDS } from '../core';
import { dayText, nameText, optionalText, uuid, version } from './fields';

export const addTaskForm = z.object({
  kind: z.enum(TASK_KINDS, { error: 'required' }),
  text: nameText(200, 'taskRequired'),
  wearerId: uuid.nullable().default(null),
  dueOn: dayText('dayRequired'),
  assignedTo: uuid.nullable(),
});
/** Another day or another person, and why. */
export const changeTaskForm = z.object({ taskId: uuid, version, dueOn: dayText('dayRequired'), assignedTo: uuid.nullable(), note: optionalText(200) });
/** Done, or open again after all. */
export const finishTaskForm = z.object({ taskId: uuid, version, done: z.boolean(), note: optionalText(200) });
/** Open ones, or those done last. */
export const tasksForm = z.object({ which: z.enum(['open', 'done']).default('open') });
