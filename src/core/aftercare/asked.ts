import { latest, type FactChain } from '../record/chains';
import type { AftercareAnswerFact } from '../record/visitFacts';
import type { Eye } from '../units';

/**
 * What is asked of a wearer at aftercare, as data. What the history asks already (hours a day, how often replaced, slept in,
 * water) is asked there and read here; this is what belongs to aftercare alone. Source: common practice.
 */

/** What a wearer reports of one eye. */
export const TROUBLES = [
  'none',
  'dryLate',
  'dryAllDay',
  'haze',
  'farBlur',
  'nearBlur',
  'clearsOnBlink',
  'awareness',
  'sting',
  'itch',
  'redEvening',
  'movesOut',
] as const;
export type Trouble = (typeof TROUBLES)[number];

/** Glasses to change to when lenses have to stay out. */
export const GLASSES_STATES = ['usable', 'outOfDate', 'none'] as const;

/** What lenses are really kept in where it is none of the products that the practice knows. */
export const OTHER_SOLUTIONS = ['shopsOwn', 'saline', 'water', 'otherProduct', 'notSure'] as const;

export interface AftercareQuestion {
  readonly id: AftercareQuestionId;
  /** Asked of each eye, or of the wearer. */
  readonly of: 'eye' | 'wearer';
  /** `many`: any of the options; `solution`: a product of the practice or one of the options; `day`: a calendar day. */
  readonly kind: 'many' | 'one' | 'solution' | 'topics' | 'day';
  readonly options?: readonly string[];
}
export const AFTERCARE_QUESTION_IDS = ['trouble', 'solutionUsed', 'glasses', 'saidBack', 'firstNight'] as const;
export type AftercareQuestionId = (typeof AFTERCARE_QUESTION_IDS)[number];

export const AFTERCARE_QUESTIONS: readonly AftercareQuestion[] = [
  { id: 'trouble', of: 'eye', kind: 'many', options: TROUBLES },
  { id: 'solutionUsed', of: 'wearer', kind: 'solution', options: OTHER_SOLUTIONS },
  { id: 'glasses', of: 'wearer', kind: 'one', options: GLASSES_STATES },
  { id: 'saidBack', of: 'wearer', kind: 'topics' },
  // The first night that lenses were slept in as prescribed: the schedule of overnight wear runs from it.
  { id: 'firstNight', of: 'wearer', kind: 'day' },
];

/** What was answered: words of the question's own list, or the identity of a care product, or a day. */
export type AftercareSaid = readonly string[];

/** Topics asked back at aftercare; a single-use lens is neither rubbed nor stored. */
export const AFTERCARE_TOPICS = ['cleanDryHands', 'rubAndRinse', 'freshSolution', 'noWater', 'neverSleep', 'replaceOnTime', 'dangerSigns'] as const;
export type AftercareTopic = (typeof AFTERCARE_TOPICS)[number];
const REUSABLE_ONLY: readonly string[] = ['rubAndRinse', 'freshSolution'];
/**
 * What the wearer says back at aftercare.
 * @param singleUse whether every lens worn is thrown away each day
 * @param overnight whether lenses are slept in as prescribed: "never sleep in them" is not theirs
 * @example aftercareTopics(true, false).length → 5
 */
export const aftercareTopics = (singleUse: boolean, overnight: boolean): readonly AftercareTopic[] =>
  AFTERCARE_TOPICS.filter((t) => !(singleUse && REUSABLE_ONLY.includes(t)) && !(overnight && t === 'neverSleep'));

const QUESTION = new Map<string, AftercareQuestion>(AFTERCARE_QUESTIONS.map((q) => [q.id, q]));
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;
const DAY = /^\d{4}-\d{2}-\d{2}$/;

/**
 * What is wrong with an answer, as a code; null when nothing is.
 * @param eye whose it is; null for the wearer's
 * @example aftercareProblem('trouble', ['none', 'haze'], 'right') → 'noneWithOthers'
 */
export function aftercareProblem(id: string, said: AftercareSaid, eye: Eye | null): string | null {
  const q = QUESTION.get(id);
  if (!q || (q.of === 'eye') !== (eye !== null)) return 'answerUnknown';
  if (new Set(said).size !== said.length) return 'answerTwice';
  switch (q.kind) {
    case 'many':
      if (said.length === 0) return 'required';
      if (said.some((s) => !q.options?.includes(s))) return 'answerUnknown';
      return said.includes('none') && said.length > 1 ? 'noneWithOthers' : null;
    case 'one':
      return said.length === 1 && q.options?.includes(said[0] ?? '') ? null : 'answerUnknown';
    case 'solution':
      return said.length === 1 && (q.options?.includes(said[0] ?? '') === true || UUID.test(said[0] ?? '')) ? null : 'answerUnknown';
    // None at all is an answer: nothing was said back.
    case 'topics':
      return said.every((s) => (AFTERCARE_TOPICS as readonly string[]).includes(s)) ? null : 'answerUnknown';
    case 'day':
      return said.length === 1 && DAY.test(said[0] ?? '') ? null : 'notADay';
  }
}

/** What was answered: at one visit, or for what holds longer at any. @param visitId null for any visit */
export const aftercareSaid = (
  answers: readonly FactChain<AftercareAnswerFact>[],
  id: AftercareQuestionId,
  eye: Eye | null,
  visitId: string | null,
): AftercareSaid | null => latest(answers, (a) => a.question === id && a.eye === eye && (visitId === null || a.visitId === visitId))?.current.said ?? null;
