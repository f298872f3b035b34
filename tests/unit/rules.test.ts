import { describe, expect, it } from 'vitest';
import { AFTERCARE_RULES, DEFAULT_SETTINGS, holds, KIND_RULES, NIGHT_BARS, STOP_RULES, type AdviceFacts, type Condition, type KindRule } from '../../src/core';
import { en as messages } from '../../src/i18n/messages/en';
import { firingCases, nearMisses, ruleFaults, type RuleLike } from '../support/ruleCases';

const ALL: readonly RuleLike[] = [...STOP_RULES, ...KIND_RULES, ...NIGHT_BARS, ...AFTERCARE_RULES];
const fires = (rule: RuleLike, facts: AdviceFacts): boolean => holds(rule.when, facts) !== null;

describe('every rule, from its own fields', () => {
  const firing = ALL.flatMap((rule) => firingCases(rule).map((c) => ({ rule, ...c })));
  const missing = ALL.flatMap((rule) => nearMisses(rule).map((c) => ({ rule, ...c })));
  it('finds the rules and makes cases', () => {
    expect(ALL.length).toBeGreaterThan(125);
    expect(firing.length).toBeGreaterThan(100);
    expect(missing.length).toBeGreaterThan(100);
    // Every rule that asks anything has a case in which it just does not fire.
    const missed = new Set(missing.map((c) => c.rule.id));
    expect(ALL.filter((r) => r.when.length > 0 && !missed.has(r.id)).map((r) => r.id)).toEqual([]);
  });
  it.each(firing.map((c) => [c.name, c] as const))('fires: %s', (_name, { rule, facts }) => {
    expect(fires(rule, facts)).toBe(true);
  });
  it.each(missing.map((c) => [c.name, c] as const))('just does not: %s', (_name, { rule, facts }) => {
    expect(fires(rule, facts)).toBe(false);
  });
  it('none is unreachable, none contradicts another', () => {
    expect(ruleFaults(STOP_RULES)).toEqual([]);
    expect(ruleFaults(KIND_RULES)).toEqual([]);
    expect(ruleFaults(NIGHT_BARS)).toEqual([]);
    expect(ruleFaults(AFTERCARE_RULES)).toEqual([]);
  });
  it('with nothing said and nothing seen, only what always weighs holds', () => {
    const nothing: AdviceFacts = {
      person: { age: 30, guardianNamed: 'yes' },
      eyes: { right: {}, left: {} },
      baseline: { right: {}, left: {} },
      settings: DEFAULT_SETTINGS,
    };
    expect(ALL.filter((r) => fires(r, nothing)).map((r) => r.id)).toEqual(['nightRisk', 'oxygen']);
  });
});

describe('the check itself finds bad rules', () => {
  const said = (key: string, ...anyOf: string[]): Condition => ({ of: 'person', key, anyOf });
  const rule = (id: string, when: readonly Condition[], weigh: KindRule['weigh'] = { daily: 1 }) => ({ id, when, weigh });
  it.each<[string, ReturnType<typeof rule>, RegExp]>([
    ['an option that is not offered', rule('a', [said('returns', 'perhaps')]), /unreachable: person.returns has no option perhaps/],
    ['a question that is not asked', rule('a', [said('shoeSize', 'big')]), /no question shoeSize/],
    ['a figure outside its limits', rule('a', [{ of: 'person', key: 'daysPerWeek', atLeast: 8 }]), /unreachable/],
    ['a grade past severe', rule('a', [{ of: 'eye', key: 'staining', atLeast: 4.5 }]), /unreachable/],
    ['two answers to a question that takes one', rule('a', [said('returns', 'yes'), said('returns', 'no')]), /contradictory/],
    [
      'an empty range',
      rule('a', [
        { of: 'person', key: 'hoursPerDay', atLeast: 10 },
        { of: 'person', key: 'hoursPerDay', below: 9 },
      ]),
      /contradictory/,
    ],
    ['no weight', rule('a', [said('returns', 'yes')], { daily: 0 }), /no weight/],
  ])('%s', (_name, bad, words) => {
    expect(ruleFaults([bad]).join()).toMatch(words);
  });
  it('opposites and twins', () => {
    const when = [said('returns', 'yes')];
    expect(ruleFaults([rule('a', when, { daily: 1 }), rule('b', when, { daily: -1 })]).join()).toMatch(/contradicts a about daily/);
    expect(ruleFaults([rule('a', when), rule('a', when)]).join()).toMatch(/twice/);
    expect(
      ruleFaults([
        { id: 'a', when, strength: 'stop' },
        { id: 'b', when, strength: 'caution' },
      ]).join(),
    ).toMatch(/asks the same as a/);
  });
});

describe('every rule has its words', () => {
  const stops: Readonly<Record<string, { why?: string; frees?: string; steer?: string }>> = messages.stops.r;
  const names: Readonly<Record<string, string>> = messages.ruleNames;
  it.each(STOP_RULES.map((r) => [r.id, r] as const))('%s', (id, r) => {
    expect(names[id]).toBeTruthy();
    expect(stops[id]?.why).toBeTruthy();
    if (r.strength === 'stop' || r.strength === 'treatFirst') expect(stops[id]?.frees).toBeTruthy();
    if (r.strength === 'overwear') expect(stops[id]?.steer).toBeTruthy();
    expect(r.source.text.length).toBeGreaterThan(5);
  });
  const kinds: Readonly<Record<string, Readonly<Record<string, string>>>> = messages.kind.r;
  it.each(KIND_RULES.map((r) => [r.id, r] as const))('%s', (id, r) => {
    for (const target of Object.keys(r.weigh)) expect(kinds[id]?.[target], target).toBeTruthy();
    expect(r.source.text.length).toBeGreaterThan(5);
  });
  const aftercare: Readonly<Record<string, { cause?: string; why?: string }>> = messages.aftercare.r;
  it.each(AFTERCARE_RULES.map((r) => [r.id, r] as const))('aftercare: %s', (id, r) => {
    expect(aftercare[id]?.cause).toBeTruthy();
    expect(aftercare[id]?.why).toBeTruthy();
    expect(messages.aftercare.steps[r.step]).toBeTruthy();
    expect(r.source.text.length).toBeGreaterThan(5);
  });
  const why: Readonly<Record<string, string>> = messages.kind.why;
  it('bars of the night', () => {
    for (const bar of NIGHT_BARS) expect(why[bar.id], bar.id).toBeTruthy();
  });
});
