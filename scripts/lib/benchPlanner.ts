import { performance } from 'node:perf_hooks';
import highsLoader from 'highs';
import { coverageProblem, planCoverage, type CoverageNeeds } from '../../src/core';
import { DEMO_FAMILIES, wholeFamily } from '../../demo/families';
import { coverageModel } from '../../tests/support/coverageModel';

/** Powers as people have them: both eyes alike, most of them a little short-sighted, some with cylinder near the horizontal. */
function needsOf(count: number, seed: number): readonly CoverageNeeds[] {
  let a = seed;
  const next = (): number => {
    a = (Math.imul(a, 1664525) + 1013904223) | 0;
    return (a >>> 0) / 4294967296;
  };
  const bell = (): number => next() + next() + next() - 1.5;
  return Array.from({ length: count }, () => {
    const sphere = Math.round((-2.5 + bell() * 3) * 4) / 4;
    const toric = next() < 0.45;
    const eye = () => ({
      sphere: sphere + Math.round(bell() * 1.2) / 4,
      cylinder: toric ? -Math.round((0.5 + next() * 1.5) * 4) / 4 : 0,
      axis: toric ? ((Math.round(180 + bell() * 25 + (next() < 0.3 ? 90 : 0)) + 179) % 180) + 1 : 180,
    });
    return { needs: { right: eye(), left: eye() }, meanK: { right: 43, left: 43 } };
  });
}

/** The plan of the drawer beside the bound of an integer-programming package. */
export async function benchPlanner(): Promise<void> {
  const highs = await highsLoader();
  const families = DEMO_FAMILIES.map((draft) => wholeFamily(draft, draft.code)).filter(
    (f) => f.code === 'turnstone-30' || f.code === 'plover-30-toric' || f.code === 'dunlin-1-day',
  );
  console.log(`\nThe plan of the drawer from ${families.map((f) => f.name).join(', ')}, beside the bound of HiGHS:`);
  for (const [wearers, most] of [
    [60, 24],
    [120, 40],
    [200, 60],
  ] as const) {
    const begun = performance.now();
    const problem = coverageProblem(needsOf(wearers, wearers), families);
    const plan = planCoverage(problem, { most, depth: 1 });
    const ours = performance.now() - begun;
    const asked = performance.now();
    const solved = highs.solve(coverageModel(problem, most), { time_limit: 60 });
    const theirs = performance.now() - asked;
    const found = Math.round(solved.ObjectiveValue);
    console.log(
      `  ${String(wearers).padStart(4)} wearers, ${String(most).padStart(3)} lenses of ${problem.lenses.length}: ${plan.covered} walk out; HiGHS ${found} (${solved.Status}): ${(plan.covered / Math.max(1, found)).toFixed(3)} of it; ${(ours / 1000).toFixed(1)} s and ${(theirs / 1000).toFixed(1)} s`,
    );
  }
  const begun = performance.now();
  const large = coverageProblem(needsOf(2000, 3), families);
  const plan = planCoverage(large, { most: 150, depth: 1 });
  console.log(`  2000 wearers, 150 lenses of ${large.lenses.length}: ${plan.covered} walk out; ${((performance.now() - begun) / 1000).toFixed(1)} s`);
}
