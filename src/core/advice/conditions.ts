import type { Eye } from '../units';
import type { PracticeSettings } from '../practiceSettings';
import type { AftercareEyeKey } from '../aftercare/keys';
import type { AdviceFacts, FactValue } from './facts';
import type { DerivedSign, SignId } from './signs';

/** A figure in a rule: written in it, or kept by the practice. */
export type Figure = number | { readonly setting: keyof PracticeSettings };

/** One thing a rule asks. `eye` conditions look at the same eye throughout a rule. */
export type Condition =
  | { readonly of: 'person'; readonly key: string; readonly anyOf: readonly string[] }
  | { readonly of: 'person'; readonly key: string; readonly atLeast: Figure }
  | { readonly of: 'person'; readonly key: string; readonly below: Figure }
  | { readonly of: 'eye'; readonly key: SignId | DerivedSign | AftercareEyeKey; readonly anyOf: readonly string[] }
  | { readonly of: 'eye'; readonly key: SignId | DerivedSign | AftercareEyeKey; readonly atLeast: Figure }
  | { readonly of: 'eye'; readonly key: SignId | AftercareEyeKey; readonly below: Figure }
  | { readonly of: 'eye'; readonly key: SignId; readonly rose: Figure }
  | { readonly of: 'setting'; readonly key: keyof PracticeSettings; readonly anyOf: readonly string[] }
  | { readonly any: readonly Condition[] }
  | { readonly all: readonly Condition[] };

/** Where a rule found what it asks: the answer or finding, and its value. */
export interface Evidence {
  readonly from: 'history' | 'eye' | 'power' | 'person' | 'library';
  readonly key: string;
  readonly eye: Eye | null;
  readonly value: FactValue;
}

const figure = (f: Figure, settings: PracticeSettings): number => (typeof f === 'number' ? f : Number(settings[f.setting]));
const fromOf = (key: string): Evidence['from'] =>
  key === 'age' || key === 'guardianNamed' ? 'person' : key.startsWith('strongest') || key === 'myopicShift' ? 'power' : 'history';

/** True when any condition, however deep, looks at an eye. */
export const looksAtEye = (c: Condition): boolean => ('any' in c ? c.any.some(looksAtEye) : 'all' in c ? c.all.some(looksAtEye) : c.of === 'eye');

/**
 * What bears out a condition, or null when it does not hold. What is not known never holds.
 * @param eye the eye whose findings `eye` conditions look at
 */
export function bearsOut(condition: Condition, facts: AdviceFacts, eye: Eye): readonly Evidence[] | null {
  if ('any' in condition) {
    const found = condition.any.flatMap((c) => bearsOut(c, facts, eye) ?? []);
    return found.length > 0 ? found : null;
  }
  if ('all' in condition) {
    const found = condition.all.map((c) => bearsOut(c, facts, eye));
    return found.every((f) => f !== null) ? found.flat() : null;
  }
  const { settings } = facts;
  if (condition.of === 'setting') return condition.anyOf.includes(String(settings[condition.key])) ? [] : null;
  const value: FactValue | undefined = condition.of === 'person' ? facts.person[condition.key] : facts.eyes[eye][condition.key];
  if (value === undefined) return null;
  const evidence = (v: FactValue): readonly Evidence[] => [
    { from: condition.of === 'eye' ? 'eye' : fromOf(condition.key), key: condition.key, eye: condition.of === 'eye' ? eye : null, value: v },
  ];
  if ('anyOf' in condition) {
    const said = Array.isArray(value) ? (value as readonly string[]) : [String(value)];
    const hit = said.filter((v) => condition.anyOf.includes(v));
    return hit.length === 0 ? null : evidence(Array.isArray(value) ? hit : (hit[0] ?? ''));
  }
  if (typeof value !== 'number') return null;
  if ('atLeast' in condition) return value >= figure(condition.atLeast, settings) ? evidence(value) : null;
  if ('below' in condition) return value < figure(condition.below, settings) ? evidence(value) : null;
  const { key } = condition;
  const before = [facts.baseline[eye][key], facts.lowest?.[eye][key]].filter((v) => typeof v === 'number');
  return before.length > 0 && value - Math.min(...before) >= figure(condition.rose, settings) ? evidence(value) : null;
}
