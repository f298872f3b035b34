import type { Answers } from './answers';

/**
 * Names of lenses that must not simply be given again: the wearer stopped with them, or wants to change from them,
 * for a reason that lies in the lens. Common practice: never the same lens again without a reason.
 * @param lastHandedOver families of the lenses last handed over here
 * @example droppedLenses({whyChange: {value: ['dryness'], note: null}}, ['Dunlin 1-Day']) → ['Dunlin 1-Day']
 */
export function droppedLenses(answers: Answers, lastHandedOver: readonly string[]): readonly string[] {
  const why = answers.whyChange?.value;
  const inTheLens = Array.isArray(why) && (why as readonly string[]).some((w) => ['comfort', 'dryness', 'vision', 'handling', 'deposits'].includes(w));
  if (!inTheLens) return [];
  const said = answers.whichLens?.note?.trim();
  return said ? [said] : [...new Set(lastHandedOver)];
}

/** Is this family one of them? Compared without case and spaces. @example isDropped('Dunlin 1-Day', ['dunlin 1-day']) → true */
export const isDropped = (family: string, dropped: readonly string[]): boolean => {
  const plain = (name: string): string => name.toLocaleLowerCase('en').replace(/[\s-]+/g, '');
  return dropped.some((d) => plain(d) === plain(family));
};
