import { medicineGroup } from './medicines';
import { ADULT, question, QUESTIONS, type Question, type QuestionId } from './questions';

/** One option, several options or typed names, or a whole number. */
export type AnswerValue = string | number | readonly string[];
export interface Answer {
  readonly value: AnswerValue;
  readonly note: string | null;
}
export type Answers = Readonly<Partial<Record<QuestionId, Answer>>>;

/** What is wrong with an answer, at its question: a code with data for its words. */
export interface AnswerProblem {
  readonly question: QuestionId;
  readonly code: string;
  readonly data: Readonly<Record<string, string | number>>;
}

const NAME_MAX = 80;
const TEXT_MAX = 200;
const MEDICINES_MAX = 20;
/** More hours than this a day cannot be worn by somebody who never sleeps in them. Own choice. */
const LONGEST_AWAKE = 20;
/** Medicines that may raise the pressure in the head. Source: from memory. */
const PRESSURE_GROUPS: readonly string[] = ['tetracycline', 'retinoid'];
const chosen = (answers: Answers, id: QuestionId): readonly string[] => {
  const value = answers[id]?.value;
  return typeof value === 'string' ? [value] : Array.isArray(value) ? (value as readonly string[]) : [];
};

/**
 * The questions to ask now, in order: those about earlier wear fall away for who never wore lenses, those for
 * minors with age, since when without a danger sign, headache without a medicine that raises pressure in the head.
 * @param age whole years
 * @example askedQuestions({lastWorn: {value: 'never', note: null}}, 30).some((q) => q.id === 'sleptIn') → false
 */
export function askedQuestions(answers: Answers, age: number): readonly (Question & { readonly id: QuestionId })[] {
  const all: readonly (Question & { readonly id: QuestionId })[] = QUESTIONS;
  const asked: Readonly<Record<NonNullable<Question['asked']>, boolean>> = {
    wornBefore: !chosen(answers, 'lastWorn').includes('never'),
    minor: age < ADULT,
    danger: chosen(answers, 'danger').some((sign) => sign !== 'none'),
    pressureMedicine: chosen(answers, 'medicines').some((name) => PRESSURE_GROUPS.includes(medicineGroup(name) ?? '')),
  };
  return all.filter((q) => q.asked === undefined || asked[q.asked]);
}

/** Is the value of the question's own shape? A null code means yes. */
function shapeProblem(q: Question, value: AnswerValue): string | null {
  switch (q.kind) {
    case 'one':
      return typeof value === 'string' && q.options?.includes(value) ? null : 'answerNotOffered';
    case 'many': {
      if (!Array.isArray(value) || value.length === 0) return 'answerNotOffered';
      const list = value as readonly string[];
      if (new Set(list).size !== list.length || list.some((v) => !q.options?.includes(v))) return 'answerNotOffered';
      return q.none !== undefined && list.includes(q.none) && list.length > 1 ? 'noneWithOthers' : null;
    }
    case 'number':
      if (typeof value !== 'number' || !Number.isInteger(value)) return 'answerNotWhole';
      return value >= (q.min ?? 0) && value <= (q.max ?? 0) ? null : 'answerOutOfRange';
    case 'medicines': {
      if (!Array.isArray(value) || value.length > MEDICINES_MAX) return 'answerTooLong';
      const names = value as readonly unknown[];
      return names.every((v) => typeof v === 'string' && v.trim() !== '' && v.length <= NAME_MAX) ? null : 'answerTooLong';
    }
    case 'text':
      return typeof value === 'string' && value.length <= TEXT_MAX ? null : 'answerTooLong';
  }
}

/**
 * Everything wrong with a set of answers: of the wrong shape, outside its limits, or contradicting another answer.
 * @param handedOver whether this wearer's record shows lenses handed over before
 * @example answerProblems({daysPerWeek: {value: 8, note: null}}, false)[0].code → 'answerOutOfRange'
 */
export function answerProblems(answers: Answers, handedOver: boolean): AnswerProblem[] {
  const problems: AnswerProblem[] = [];
  for (const [id, answer] of Object.entries(answers) as [QuestionId, Answer][]) {
    const q = question(id);
    const code = q ? shapeProblem(q, answer.value) : 'answerNotOffered';
    if (code === null) continue;
    problems.push({ question: id, code, data: { value: String(answer.value), min: q?.min ?? 0, max: q?.max ?? 0 } });
  }
  const never = chosen(answers, 'lastWorn').includes('never');
  if (never && handedOver) problems.push({ question: 'lastWorn', code: 'neverButHandedOver', data: {} });
  const about = QUESTIONS.find((q): boolean => 'asked' in q && q.asked === 'wornBefore' && answers[q.id] !== undefined);
  if (never && about) problems.push({ question: 'lastWorn', code: 'neverButWorn', data: {} });
  const neverSlept = chosen(answers, 'sleptIn').includes('never');
  if (neverSlept && chosen(answers, 'nights').includes('fallsAsleep')) problems.push({ question: 'sleptIn', code: 'neverSleptButFallsAsleep', data: {} });
  const hours = answers.hoursPerDay?.value;
  if (neverSlept && typeof hours === 'number' && hours > LONGEST_AWAKE)
    problems.push({ question: 'hoursPerDay', code: 'hoursWithoutSleep', data: { value: hours } });
  return problems;
}
