import { eye, inVisit, optionalText, uuid } from './fields';
import { z } from 'zod';

export const startLessonForm = z.object({ ...inVisit, handler: optionalText(120) });
export const attemptForm = z.object({
  ...inVisit,
  lessonId: uuid,
  eye,
  move: z.enum(['on', 'off']),
  worked: z.boolean(),
  unaided: z.boolean().default(true),
  miss: z.enum(['blinked', 'lashes', 'lidSlipped', 'folded', 'fell']).nullable(),
});
export const topicForm = z.object({ ...inVisit, lessonId: uuid, topic: z.string().max(60) });
export const signOffForm = z.object({ ...inVisit, lessonId: uuid });
