import type { Answers } from './answers';

/**
 * Lenses that must not simply be given again: the wearer stopped with them, or wants to change from them, for a reason that
 * lies in the lens. Common practice: never the same lens again without a reason.
 * @param lastHandedOver codes of the families last handed over here
 * @returns what the wearer calls it, where they named one; else codes
 * @example droppedLenses({whyChange: {value: ['dryness'], note: null}}, ['dunlin-1-day']) → ['dunlin-1-day']
 */
export function droppedLenses(answers: Answers, lastHandedOver: readonly string[]): readonly string[] {
  const why = answers.whyChange?.value;
  const inTheLens = Array.isArray(why) && (why as readonly string[]).some((w) => ['comfort', 'dryness', 'vision', 'handling', 'deposits'].includes(w));
  if (!inTheLens) return [];
  const said = answers.whichLens?.note?.trim();
  return said ? [said] : [...new Set(lastHandedOver)];
}

/**
 * Is this family one of them? By its code; what a wearer said is compared with the name, without case and spaces.
 * @example isDropped({code: 'dunlin-1-day', name: 'Dunlin 1-Day'}, ['dunlin 1 day']) → true
 */
export const isDropped = (family: { readonly code: string; readonly name: string }, dropped: readonly string[]): boolean => {
  const plain = (name: string): string => name.toLocaleLowerCase('en').replace(/[\s-]+/g, '');
  return dropped.some((d) => d === family.code || plain(d) === plain(family.name));
};
