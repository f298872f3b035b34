import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isRight, nextScenario, scenariosFor, SCENARIO_IDS, weakTopics, type ScenarioAnswer } from '../index';

const all = scenariosFor({ singleUse: false, peroxide: true });

describe('Is it safe?', () => {
  it('every case is somebody’s, has its right choice among its choices, and another one', () => {
    const single = scenariosFor({ singleUse: true, peroxide: false });
    expect(new Set([...all, ...single].map((s) => s.id))).toEqual(new Set(SCENARIO_IDS));
    for (const s of [...all, ...single]) {
      expect(s.choices).toContain(s.right);
      expect(s.choices.length).toBeGreaterThan(1);
      expect(new Set(s.choices).size).toBe(s.choices.length);
      expect(isRight(s.id, s.right)).toBe(true);
      for (const wrong of s.choices.filter((c) => c !== s.right)) expect(isRight(s.id, wrong)).toBe(false);
      expect(isRight(s.id, 'sing')).toBeNull();
    }
  });
  it('who has single-use lenses is asked nothing of soaking; a peroxide’s case is asked of whoever has one', () => {
    const ids = scenariosFor({ singleUse: true, peroxide: true }).map((s) => s.id);
    for (const id of ['toppedUp', 'shortSoak', 'ordinaryCase', 'dropped'] as const) expect(ids).not.toContain(id);
    expect(scenariosFor({ singleUse: false, peroxide: false }).map((s) => s.id)).not.toContain('ordinaryCase');
  });
  it('a mandatory one that was wrong comes back, after another, until it is right', () => {
    const first = nextScenario(all, []);
    expect(first?.id).toBe('redEye');
    const wrong: ScenarioAnswer[] = [{ scenario: 'redEye', right: false }];
    expect(nextScenario(all, wrong)?.id).toBe('lightHurts');
    expect(nextScenario(all, [...wrong, { scenario: 'lightHurts', right: true }])?.id).toBe('redEye');
    expect(weakTopics(all, wrong)).toEqual(['dangerSigns']);
    expect(weakTopics(all, [...wrong, { scenario: 'redEye', right: true }])).toEqual([]);
  });
  it('always ends once everything mandatory was right, and never before', () =>
    fc.assert(
      fc.property(fc.boolean(), fc.boolean(), fc.infiniteStream(fc.boolean()), (singleUse, peroxide, luck) => {
        const cases = scenariosFor({ singleUse, peroxide });
        const answers: ScenarioAnswer[] = [];
        let luckLeft = 40;
        for (let asked = nextScenario(cases, answers); asked; asked = nextScenario(cases, answers)) {
          luckLeft -= 1;
          // Whoever guesses for a while knows it in the end.
          answers.push({ scenario: asked.id, right: luckLeft < 0 || luck.next().value === true });
          expect(answers.length).toBeLessThan(200);
        }
        for (const s of cases) {
          const last = answers.findLast((a) => a.scenario === s.id);
          expect(last).toBeDefined();
          if (s.mandatory) expect(last?.right).toBe(true);
        }
      }),
    ));
});
