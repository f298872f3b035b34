import { createContext, useContext } from 'react';
import { useTranslations } from 'use-intl';
import { useKnownWords } from '@/i18n/wordsOf';
import type { Eye } from '@/core';
import type { FieldProblem, ProblemData, Problem } from '@/lib/outcome';
import { formatDay } from '@/i18n/format';

/** Days inside a message are written as days, and numbers below nothing with a minus sign. */
const plainly = (value: string | number): string | number => {
  if (typeof value === 'number') return value < 0 ? `−${Math.abs(value)}` : value;
  return /^\d{4}-\d\d-\d\d$/.test(value) ? formatDay(value) : value;
};
const shown = (data: ProblemData = {}): Record<string, string | number> => Object.fromEntries(Object.entries(data).map(([k, v]) => [k, plainly(v)]));

/** A problem code with its data, in words. */
export function useProblemWords(): (code: string, data?: ProblemData) => string {
  const { has, of } = useKnownWords('problems');
  return (code, data) => {
    if (has(code)) return of(code, shown(data));
    // A part that forgot to bring words: seen by whoever builds it, and by the browser tests.
    console.error(`No words here for the problem ${code}`);
    return of('notUnderstood');
  };
}

/** Names a rule that refuses, where rules have names: in a visit. */
export const RuleName = createContext<(rule: string) => string>((rule) => rule);

/** A refusal that belongs to no field, in words. */
export function useRefusalWords(): (problem: Problem) => string {
  const words = useProblemWords();
  const eyes = useTranslations('eyes');
  const ruleName = useContext(RuleName);
  return (problem) => {
    switch (problem.kind) {
      case 'ruleBroken': {
        const { eye, rule, ...rest } = problem.data ?? {};
        const data = rule === undefined ? rest : { ...rest, rule: ruleName(String(rule)) };
        const text = words(problem.rule, data);
        return eye === 'right' || eye === 'left' ? `${eyes(`${eye}.short`)}: ${text}` : text;
      }
      case 'forbidden':
        return words('notAllowed');
      case 'notFound':
        return words('notFound');
      case 'throttled':
        return words('throttled', { minutes: Math.ceil(problem.retryAfterSeconds / 60) });
      case 'conflict':
        return words('changedMeanwhile');
      case 'signedOut':
        return words('signedOut');
      case 'invalid': {
        const [first] = problem.fields;
        return first ? words(first.code, first.data) : words('notUnderstood');
      }
    }
  };
}

/** The problem of one field in a refusal, by its path. */
export const problemAt = (problem: Problem | null, ...path: readonly string[]): FieldProblem | null =>
  problem?.kind === 'invalid' ? (problem.fields.find((f) => f.path.join('.') === path.join('.')) ?? null) : null;

export const otherEye = (eye: Eye): Eye => (eye === 'right' ? 'left' : 'right');
