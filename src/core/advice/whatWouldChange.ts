import type { AdvisedModality } from '../lens/catalogueFamily';
import { answerProblems, askedQuestions, type Answer, type Answers, type AnswerValue } from './answers';
import type { Question, QuestionId } from './questions';
import type { Recommendation } from './recommend';

/** One answer that would have to be another for another kind to be recommended. */
export interface WouldChange {
  readonly question: QuestionId;
  readonly to: AnswerValue;
}

/** Every other single value of a question's answer, the nearest first. */
function alternatives(q: Question, value: AnswerValue | undefined): AnswerValue[] {
  switch (q.kind) {
    case 'one':
      return (q.options ?? []).filter((o) => o !== value);
    case 'many': {
      const now = Array.isArray(value) ? (value as readonly string[]) : [];
      const without = now.filter((o) => o !== q.none).map((o) => now.filter((other) => other !== o));
      const withOne = (q.options ?? []).filter((o) => o !== q.none && !now.includes(o)).map((o) => [...now.filter((other) => other !== q.none), o]);
      return [...without.map((list) => (list.length === 0 && q.none !== undefined ? [q.none] : list)), ...withOne].filter((list) => list.length > 0);
    }
    case 'number': {
      const now = typeof value === 'number' ? value : (q.min ?? 0);
      const all = Array.from({ length: (q.max ?? 0) - (q.min ?? 0) + 1 }, (_, i) => (q.min ?? 0) + i);
      return all.filter((n) => n !== value).sort((a, b) => Math.abs(a - now) - Math.abs(b - now) || a - b);
    }
    case 'medicines':
    case 'text':
      return [];
  }
}

/**
 * Which single answer, changed, would make each other kind the recommendation: found by changing one answer and
 * running the rules again. Changes that contradict the other answers, or bring a new stop, do not count.
 * @param run the recommendation for other answers, and how many stops they bring
 * @param limit how many changes a kind are named
 */
export function whatWouldChange(
  answers: Answers,
  age: number,
  run: (answers: Answers) => { readonly recommendation: Recommendation; readonly stops: number },
  limit = 3,
): Readonly<Record<AdvisedModality, readonly WouldChange[]>> {
  const now = run(answers);
  const found: Record<AdvisedModality, WouldChange[]> = { daily: [], twoWeekly: [], monthly: [] };
  const before = now.recommendation.recommended?.kind.modality;
  for (const q of askedQuestions(answers, age)) {
    // Only what was answered can have been answered otherwise.
    const held: Answer | undefined = answers[q.id];
    if (!held) continue;
    const met = new Set<AdvisedModality>();
    for (const to of alternatives(q, held.value)) {
      const changed: Answers = { ...answers, [q.id]: { value: to, note: null } };
      if (answerProblems(changed, false).length > answerProblems(answers, false).length) continue;
      const then = run(changed);
      const modality = then.recommendation.recommended?.kind.modality;
      if (modality === undefined || modality === before || met.has(modality) || then.stops > now.stops) continue;
      met.add(modality);
      if (found[modality].length < limit) found[modality].push({ question: q.id, to });
    }
  }
  return found;
}
