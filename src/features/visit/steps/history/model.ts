import {
  answerProblems,
  askedQuestions,
  type Answer,
  type AnswerProblem,
  type Answers,
  type AnswerValue,
  type Question,
  type QuestionId,
  type RecordedAnswer,
} from '@/core';
import type { DraftOf } from '../../shell/draftKeys';

/** View logic of the history sheet, without React: what is being typed, laid over what was said. */

export type SheetQuestion = Question & { readonly id: QuestionId };
/** Where an answer on the sheet comes from. */
export type Origin = 'typing' | 'said' | 'carried' | 'none';

/** A field's text as the answer it stands for; what cannot be read stays text, and is refused as that. */
export function readTyped(q: Question, text: string): AnswerValue {
  switch (q.kind) {
    case 'one':
    case 'text':
      return text;
    case 'many':
      return text.split(',').filter(Boolean);
    case 'number':
      return /^\d{1,4}$/.test(text.trim()) ? Number(text.trim()) : text.trim();
    case 'medicines':
      return /^(0|none|no)$/i.test(text.trim())
        ? []
        : text
            .split(/[,;\n]/)
            .map((name) => name.trim())
            .filter(Boolean);
  }
}

/** An answer as a field holds it. */
export function typedOf(q: Question, value: AnswerValue): string {
  if (typeof value === 'number') return String(value);
  if (typeof value === 'string') return value;
  return q.kind === 'medicines' ? (value.length === 0 ? '0' : value.join(', ')) : value.join(',');
}

/** Draft key: the answers about earlier lenses are to be taken back. */
export const WITHDRAW = 'withdraw';
export const noteKey = (id: QuestionId) => `note:${id}` as const;

/** Answers being typed; a comment alone belongs to the answer that holds. */
export function typing(body: DraftOf<'history'>, held: Answers, questions: readonly SheetQuestion[]): Answers {
  const out: Partial<Record<QuestionId, Answer>> = {};
  for (const q of questions) {
    const text = body[q.id];
    const note = body[noteKey(q.id)];
    const before = held[q.id];
    const value = text === undefined ? before?.value : readTyped(q, text);
    if ((text === undefined && note === undefined) || value === undefined) continue;
    out[q.id] = { value, note: note ?? before?.note ?? null };
  }
  return out;
}

/** As if they were recorded, so that the rules can be shown while typing. */
export const asRecorded = (answers: Answers, visitId: string): RecordedAnswer[] =>
  (Object.entries(answers) as [QuestionId, Answer][]).map(([question, a]) => ({
    id: `typing-${question}`,
    visitId,
    question,
    value: a.value,
    note: a.note,
    acknowledgedAt: null,
  }));

export interface Sheet {
  readonly questions: readonly SheetQuestion[];
  readonly typed: Answers;
  /** Said today about earlier lenses and taken back, because none were ever worn. */
  readonly withdrawn: readonly QuestionId[];
  /** Said today: recorded, or being typed. */
  readonly now: Answers;
  readonly problems: readonly AnswerProblem[];
  readonly missing: readonly SheetQuestion[];
}

/** The sheet as it stands. @param all answers recorded today and before */
export function sheetOf(body: DraftOf<'history'>, all: { readonly said: Answers; readonly before: Answers }, age: number, handedOver: boolean): Sheet {
  // Which questions are asked depends on the answers, and the answers on the questions: who is asked about first settles it.
  const first = askedQuestions({}, age);
  const typedFirst = typing(body, all.said, first);
  const settled: Answers = { ...all.before, ...all.said, ...typedFirst };
  const questions = askedQuestions(settled, age);
  const typed = typing(body, all.said, questions);
  const never = (typed.lastWorn ?? all.said.lastWorn)?.value === 'never';
  const withdrawn = body[WITHDRAW] === 'yes' && never ? first.filter((q) => q.asked === 'wornBefore' && all.said[q.id] !== undefined).map((q) => q.id) : [];
  const now: Answers = Object.fromEntries(Object.entries({ ...all.said, ...typed }).filter(([id]) => !(withdrawn as readonly string[]).includes(id)));
  return {
    questions,
    typed,
    withdrawn,
    now,
    problems: answerProblems(now, handedOver),
    missing: questions.filter((q) => q.optional !== true && now[q.id] === undefined),
  };
}

export function originOf(id: QuestionId, sheet: Sheet, before: Answers): Origin {
  if (sheet.typed[id]) return 'typing';
  if (sheet.now[id]) return 'said';
  return before[id] && id !== 'danger' ? 'carried' : 'none';
}

/** The value after a digit: chooses in a `one` question, adds or removes in a `many`; 0 is "none". */
export function press(q: Question, digit: number, value: AnswerValue | undefined): { readonly value: AnswerValue; readonly on: boolean } | null {
  const options = (q.options ?? []).filter((o) => o !== q.none);
  const chosen = digit === 0 ? q.none : options[digit - 1];
  if (chosen === undefined) return null;
  if (q.kind === 'one') return { value: chosen, on: true };
  if (chosen === q.none) return { value: [chosen], on: true };
  const now = Array.isArray(value) ? (value as readonly string[]).filter((v) => v !== q.none) : [];
  return { value: now.includes(chosen) ? now.filter((v) => v !== chosen) : [...now, chosen], on: false };
}

/** The digit that stands for an option. */
export const digitOf = (q: Question, option: string): number => (option === q.none ? 0 : (q.options ?? []).filter((o) => o !== q.none).indexOf(option) + 1);

/** Same answer, whatever the order in which options were chosen. */
export const sameAnswer = (a: Answer | undefined, b: Answer | undefined): boolean => {
  const plain = (v: Answer | undefined): string =>
    v === undefined ? '' : Array.isArray(v.value) ? [...(v.value as readonly string[])].sort().join() : String(v.value);
  return plain(a) === plain(b);
};

/** Answers as they are recorded: those typed, and those withdrawn. */
export function toRecord(sheet: Pick<Sheet, 'typed' | 'withdrawn'>) {
  const typed = Object.entries(sheet.typed).map(([question, a]) => ({
    question: question as QuestionId,
    value: typeof a.value === 'object' ? [...a.value] : a.value,
    note: a.note,
  }));
  return [...typed, ...sheet.withdrawn.map((question) => ({ question, value: null, note: null }))];
}
