import { z } from 'zod';
import { dayText, eye, inVisit, optionalText, uuid } from './fields';

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

const handedOver = z.object({
  lensOnEyeId: uuid,
  lot: z.string({ error: 'lotRequired' }).trim().min(1, 'lotRequired').max(40, 'tooLong'),
  expiresOn: dayText('expiryRequired'),
});
export const handOverForm = z
  .object({
    ...inVisit,
    right: handedOver.nullable(),
    left: handedOver.nullable(),
    /** Why no lesson was needed; only for those who handle lenses already. */
    experienceNote: optionalText(400),
  })
  .refine((form) => form.right !== null || form.left !== null, { message: 'oneEyeRequired', path: ['right'] });
