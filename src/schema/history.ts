import { QUESTIONS, type QuestionId } from '../core';
import { inVisit, uuid } from './fields';
import { z } from 'zod';

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
  /** Read back as it was said before, and confirmed. */
  readBack: z.boolean().default(false),
});
export const historyForm = z.object({ ...inVisit, answers: z.array(answer).min(1, 'nothingToRecord').max(60) });

export const alertForm = z.object({ ...inVisit, answerId: uuid });
