import { z } from 'zod';
import { CARE_TOPICS, DEXTERITIES, EYES, HELPER_WHY, INSTRUCTIONS, MISSES, OFF_TECHNIQUES, ON_TECHNIQUES, SKIN_TONE_COUNT } from '../core';
import { place, STAFF_WITHIN, staffWithin } from './appointment';
import { acuity, eye, inVisit, nameText, optionalText, uuid } from './fields';

const inLesson = { ...inVisit, lessonId: uuid };
const topic = z.enum(CARE_TOPICS, { error: 'topicUnknown' });

export const startLessonForm = z.object({
  ...inVisit,
  handler: optionalText(120),
  /** Only the topics that a change asks for, without handling. */
  topicsOnly: z.boolean().default(false),
});
/** Something more to teach, or who else may handle the lenses and why. */
export const lessonInstructionForm = z
  .object({
    ...inVisit,
    what: z.enum(INSTRUCTIONS),
    text: nameText(160, 'instructionRequired'),
    why: z.enum(HELPER_WHY).nullable().default(null),
  })
  .refine((form) => (form.what === 'helper') === (form.why !== null), { message: 'helperWhyRequired', path: ['why'] });
export const attemptForm = z.object({
  ...inLesson,
  eye,
  move: z.enum(['on', 'off']),
  worked: z.boolean(),
  unaided: z.boolean().default(true),
  miss: z.enum(MISSES).nullable(),
});
export const topicForm = z.object({ ...inLesson, topic });
export const topicsAgainForm = z.object({ ...inLesson, topics: z.array(topic).min(1, 'nothingToRecord').max(CARE_TOPICS.length) });
export const lessonWayForm = z.object({
  ...inLesson,
  hand: z.enum(EYES),
  dexterity: z.enum(DEXTERITIES),
  skinTone: z.number().int().min(1).max(SKIN_TONE_COUNT),
  onTechnique: z.enum(ON_TECHNIQUES).nullable(),
  offTechnique: z.enum(OFF_TECHNIQUES).nullable(),
});
export const lessonTurnForm = z.object({
  ...inLesson,
  turn: z.enum(['run', 'pause']),
  /** Why a prescriber lets it go on past the hour. */
  note: optionalText(400),
});
export const stopLessonForm = z.object({
  ...inLesson,
  note: optionalText(400),
  /** The day on which it goes on. */
  next: z.object(place).refine(staffWithin, STAFF_WITHIN).nullable().default(null),
  unbookedReason: optionalText(200),
});
export const lessonSightForm = z.object({ ...inLesson, eye, acuity });
export const signOffForm = z.object({
  ...inLesson,
  /** Why a prescriber signs it off although something is missing. */
  overrideNote: optionalText(400),
  /** Where the wearer is seen again, as the schedule has it. */
  next: z
    .object({ ...place, kind: z.enum(['shortFollowUp', 'longFollowUp']) })
    .refine(staffWithin, STAFF_WITHIN)
    .nullable()
    .default(null),
  unbookedReason: optionalText(200),
});
