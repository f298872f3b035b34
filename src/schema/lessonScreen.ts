import { z } from 'zod';
import { EYES, LESSON_PARTS, OFF_TECHNIQUES, ON_TECHNIQUES, SCENARIO_IDS, SKIN_TONE_COUNT } from '../core';
import { uuid } from './fields';

export const openScreenForm = z.object({ lessonId: uuid });
export const showForm = z.object({
  lessonId: uuid,
  part: z.enum(LESSON_PARTS),
  page: z.number().int().min(0).max(40),
  eye: z.enum(EYES),
  hand: z.enum(EYES),
  skinTone: z.number().int().min(1).max(SKIN_TONE_COUNT),
  onTechnique: z.enum(ON_TECHNIQUES),
  offTechnique: z.enum(OFF_TECHNIQUES),
  peroxide: z.boolean(),
});
export const readScreenForm = z.object({ lessonId: uuid });
export const answerExerciseForm = z.object({ lessonId: uuid, scenario: z.enum(SCENARIO_IDS), choice: z.string().min(1).max(40) });
/** What somebody typed where a code is asked for. */
export const codeForm = z.object({ code: z.string().max(40) });
