import fc from 'fast-check';
import highsLoader from 'highs';
import { beforeAll, expect, it } from 'vitest';
import { planCoverage, type CoverageProblem } from '../../src/core';
import { coverageModel } from '../support/coverageModel';

let highs: Awaited<ReturnType<typeof highsLoader>>;
beforeAll(async () => {
  highs = await highsLoader();
});

const lens = (i: number) => ({ familyCode: 'f', power: { sphere: -i / 4, cylinder: 0, axis: 180 }, baseCurve: 8.6, diameter: 14.2 });
const lists = fc.uniqueArray(fc.integer({ min: 0, max: 11 }), { minLength: 1, maxLength: 4 });
const problems = fc
  .array(fc.record({ right: fc.option(lists, { freq: 6 }), left: lists }), { minLength: 1, maxLength: 25 })
  .map((wearers): CoverageProblem => ({ lenses: Array.from({ length: 12 }, (_, i) => lens(i)), wearers }));

it('the plan of the drawer comes within a twentieth of the optimum of an integer-programming package (HiGHS)', () => {
  let [ours, best] = [0, 0];
  for (const problem of fc.sample(problems, { numRuns: 12, seed: 7 })) {
    const plan = planCoverage(problem, { most: 6, depth: 1 });
    const solved = highs.solve(coverageModel(problem, 6));
    expect(solved.Status).toBe('Optimal');
    expect(plan.covered).toBeLessThanOrEqual(Math.round(solved.ObjectiveValue));
    ours += plan.covered;
    best += Math.round(solved.ObjectiveValue);
  }
  expect(ours / best).toBeGreaterThanOrEqual(0.95);
});
