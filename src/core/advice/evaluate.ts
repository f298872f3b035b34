import { EYES, type Eye } from '../units';
import { bearsOut, looksAtEye, type Condition, type Evidence } from './conditions';
import type { AdviceFacts } from './facts';
import { OVERRIDABLE, STOP_RULES, type StopRule } from './stopRules';

/** A rule that holds, for whom, and what bears it out. */
export interface Fired {
  readonly rule: StopRule;
  /** The eyes it holds for; empty when it is about the person. */
  readonly eyes: readonly Eye[];
  readonly evidence: readonly Evidence[];
}

/** What bears out all conditions: for each eye where any looks at one, else once. Null when they do not hold. */
export function holds(when: readonly Condition[], facts: AdviceFacts): { readonly eyes: readonly Eye[]; readonly evidence: readonly Evidence[] } | null {
  const perEye = when.some(looksAtEye);
  const found = (perEye ? EYES : (['right'] as const)).flatMap((eye) => {
    const parts = when.map((c) => bearsOut(c, facts, eye));
    return parts.every((p) => p !== null) ? [{ eye, evidence: parts.flat() }] : [];
  });
  if (found.length === 0) return null;
  return { eyes: perEye ? found.map((f) => f.eye) : [], evidence: unique(found.flatMap((f) => f.evidence)) };
}

const unique = (all: readonly Evidence[]): Evidence[] =>
  all.filter((e, i) => all.findIndex((o) => o.key === e.key && o.eye === e.eye && String(o.value) === String(e.value)) === i);

const RANK: readonly StopRule['strength'][] = ['absolute', 'stop', 'treatFirst', 'overwear', 'caution'];

/** Every stop and caution that holds, the strongest first, in the order of the rules. */
export function firedRules(facts: AdviceFacts, rules: readonly StopRule[] = STOP_RULES): Fired[] {
  const fired = rules.flatMap((rule): Fired[] => {
    const found = holds(rule.when, facts);
    return found ? [{ rule, ...found }] : [];
  });
  return RANK.flatMap((strength) => fired.filter((f) => f.rule.strength === strength));
}

/** The same answers in another order are the same answer. */
const inOrder = (value: Evidence['value']): string => (Array.isArray(value) ? [...(value as readonly string[])].sort().join(',') : String(value));

/** A fingerprint of what a rule rests on: when it changes, a reason given for it no longer stands. */
export const evidenceKeyOf = (rule: { readonly id: string; readonly version: number }, evidence: readonly Evidence[]): string =>
  [rule.id, String(rule.version), ...evidence.map((e) => `${e.key}:${e.eye ?? ''}:${inOrder(e.value)}`).sort()].join('|');
export const evidenceKey = (fired: Fired): string => evidenceKeyOf(fired.rule, fired.evidence);

/** Stops a prescriber has not passed yet. @param passed fingerprints of reasons given */
export const notOverridden = (fired: readonly Fired[], passed: readonly string[]): Fired[] =>
  fired.filter((f) => OVERRIDABLE.includes(f.rule.strength) && !passed.includes(evidenceKey(f)));
