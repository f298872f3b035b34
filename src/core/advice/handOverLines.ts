import type { Answers } from './answers';
import type { Fired } from './evaluate';

/** The three lines that stand at every step, as codes: at most two things each; words are made where they are shown. */
export interface HandOverLines {
  readonly wants: readonly { readonly question: 'goals' | 'work' | 'tell' | 'nights'; readonly value: string }[];
  readonly cautions: readonly { readonly rule: string; readonly strength: Fired['rule']['strength'] }[];
  readonly wears: { readonly which: string | null; readonly name: string | null; readonly last: string | null; readonly days: number | null };
  /** Cautions that found no room on the two lines. */
  readonly more: number;
}

const list = (answers: Answers, id: 'goals' | 'work'): readonly string[] => {
  const value = answers[id]?.value;
  return Array.isArray(value) ? (value as readonly string[]) : [];
};
const text = (answers: Answers, id: 'tell' | 'whichLens' | 'lastWorn'): string | null => {
  const value = answers[id]?.value;
  return typeof value === 'string' && value.trim() !== '' ? value : null;
};
const ROOM = 2;

/**
 * What the technician heard, for whoever comes next: wants, cautions, wears now.
 * @example handOverLines({goals: {value: ['sport'], note: null}}, []).wants[0].value → 'sport'
 */
export function handOverLines(answers: Answers, fired: readonly Fired[]): HandOverLines {
  const tell = text(answers, 'tell');
  const nights = answers.nights?.value;
  const wants: HandOverLines['wants'] = [
    ...(tell ? [{ question: 'tell' as const, value: tell }] : []),
    ...(typeof nights === 'string' && nights !== 'none' ? [{ question: 'nights' as const, value: nights }] : []),
    ...list(answers, 'goals').map((value) => ({ question: 'goals' as const, value })),
    ...list(answers, 'work').map((value) => ({ question: 'work' as const, value })),
  ];
  const days = answers.replacedEvery?.value;
  return {
    wants: wants.slice(0, ROOM),
    cautions: fired.slice(0, ROOM).map((f) => ({ rule: f.rule.id, strength: f.rule.strength })),
    more: Math.max(0, fired.length - ROOM),
    wears: {
      which: text(answers, 'whichLens'),
      name: answers.whichLens?.note ?? null,
      last: text(answers, 'lastWorn'),
      days: typeof days === 'number' ? days : null,
    },
  };
}
