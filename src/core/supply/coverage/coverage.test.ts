import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drawerAgainst } from './drawerAgainst';
import { coverageSteps, coveredOf, isCovered, planCoverage } from './plan';
import { coverageProblem, WALK_OUT_BLUR, type CoverageFamily, type CoverageProblem } from './problem';
import { toPowerVector } from '../../optics/powerVector';

const lens = (i: number) => ({ familyCode: 'f', power: { sphere: -i / 4, cylinder: 0, axis: 180 }, baseCurve: 8.6, diameter: 14.2 });
const lists = fc.uniqueArray(fc.integer({ min: 0, max: 11 }), { minLength: 1, maxLength: 4 });
const problems = fc
  .array(fc.record({ right: fc.option(lists, { freq: 6 }), left: lists }), { minLength: 1, maxLength: 25 })
  .map((wearers): CoverageProblem => ({ lenses: Array.from({ length: 12 }, (_, i) => lens(i)), wearers }));

describe('who walks out with a pair', () => {
  it('each eye with a lens of its own: of one that serves both, two are needed', () => {
    const alike = { right: [0], left: [0] };
    expect([isCovered(alike, Uint8Array.of(1)), isCovered(alike, Uint8Array.of(2))]).toEqual([false, true]);
    expect(isCovered({ right: [0], left: [0, 1] }, Uint8Array.of(1, 1))).toBe(true);
    expect(isCovered({ right: [0], left: null }, Uint8Array.of(1))).toBe(true);
    expect(isCovered({ right: [], left: [0] }, Uint8Array.of(2))).toBe(false);
  });
  it('is what trying every way of giving lenses to eyes says', () => {
    fc.assert(
      fc.property(problems, fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 12, maxLength: 12 }), ({ wearers }, counts) => {
        const sets = Uint8Array.from(counts);
        for (const w of wearers) {
          const tried = (w.right ?? [null]).some((a) =>
            (w.left ?? [null]).some((b) => {
              const left = [...counts];
              for (const l of [a, b]) if (l !== null) left[l] = (left[l] ?? 0) - 1;
              return left.every((n) => n >= 0);
            }),
          );
          expect(isCovered(w, sets)).toBe(tried);
        }
      }),
    );
  });
});

describe('the plan', () => {
  it('keeps no more than was asked, covers what it says, and never less for more lenses', () => {
    fc.assert(
      fc.property(problems, fc.integer({ min: 0, max: 14 }), fc.integer({ min: 1, max: 3 }), (problem, most, depth) => {
        const plan = planCoverage(problem, { most, depth }, 10);
        expect(plan.keep.reduce((n, k) => n + k.count, 0)).toBeLessThanOrEqual(most);
        const sets = new Uint8Array(12);
        for (const k of plan.keep) sets[k.lens] = k.count / depth;
        expect(coveredOf(problem, sets)).toBe(plan.covered);
        plan.points.forEach((p, i) => expect(p.covered).toBeGreaterThanOrEqual(plan.points[i - 1]?.covered ?? 0));
      }),
      { numRuns: 60 },
    );
  });
  it('stops when it is told to, with what it has', () => {
    const problem: CoverageProblem = { lenses: [lens(0), lens(1), lens(2)], wearers: [0, 1, 2].map((i) => ({ right: [i], left: null })) };
    const steps = coverageSteps(problem, { most: 3, depth: 1 });
    expect([steps.next().done, steps.next(true).done]).toEqual([false, false]);
    const stopped = steps.next(false);
    expect(stopped.done && stopped.value.covered).toBe(2);
  });
});

const FAMILY: CoverageFamily = {
  code: 'plover',
  name: 'Plover',
  geometry: 'sphere',
  blocks: [
    {
      spheres: { from: -6, to: 6, step: 0.25 },
      cylinders: [0],
      axes: { from: 180, to: 180, step: 1 },
      adds: [null],
      curves: [
        { baseCurve: 8.4, diameter: 14.2 },
        { baseCurve: 8.8, diameter: 14.2 },
      ],
    },
  ],
};

describe('what would serve whom', () => {
  const of = (sphere: number, cylinder = 0, meanK: number | null = null) => ({
    needs: { right: { sphere, cylinder, axis: 180 }, left: null },
    meanK: { right: meanK, left: null },
  });
  it('every lens within a quarter dioptre of blur, and none beyond', () => {
    const { lenses, wearers } = coverageProblem([of(-2.1)], [FAMILY]);
    expect(wearers[0]?.right?.map((i) => lenses[i]?.power.sphere).sort()).toEqual([-2, -2.25]);
    // Half a dioptre of cylinder leaves a quarter of blur at its spherical equivalent; three quarters leave more.
    expect(coverageProblem([of(-2, -0.5)], [FAMILY]).lenses.map((l) => l.power.sphere)).toEqual([-2.25]);
    expect(coverageProblem([of(-2, -0.75)], [FAMILY]).wearers[0]?.right).toEqual([]);
  });
  it('in the curve that the eye would be given first', () => {
    const curve = (k: number | null) => coverageProblem([of(-2, 0, k)], [FAMILY]).lenses[0]?.baseCurve;
    expect([curve(null), curve(40), curve(47)]).toEqual([8.4, 8.8, 8.4]);
  });
  it('is the exhaustive search over the family', () => {
    fc.assert(
      fc.property(
        fc.float({ min: -6, max: 6, noNaN: true }),
        fc.float({ min: -1, max: 0, noNaN: true }),
        fc.integer({ min: 1, max: 180 }),
        (sphere, cylinder, axis) => {
          const need = { sphere, cylinder, axis };
          const { lenses, wearers } = coverageProblem([{ needs: { right: need, left: null }, meanK: { right: null, left: null } }], [FAMILY]);
          const vector = toPowerVector(need);
          const all = Array.from({ length: 49 }, (_, i) => -6 + i / 4).filter((s) => Math.hypot(vector.m - s, vector.j0, vector.j45) <= WALK_OUT_BLUR + 1e-9);
          expect((wearers[0]?.right ?? []).map((i) => lenses[i]?.power.sphere).sort()).toEqual(all.sort());
        },
      ),
      { numRuns: 100 },
    );
  });
});

describe('the drawer beside the plan', () => {
  it('says what to buy and what serves nobody', () => {
    const problem: CoverageProblem = { lenses: [lens(0), lens(1)], wearers: [{ right: [0], left: [0] }] };
    const plan = planCoverage(problem, { most: 2, depth: 1 });
    const { buy, retire } = drawerAgainst(problem, plan, [
      { ...lens(0), count: 1 },
      { ...lens(9), count: 3 },
    ]);
    expect(buy).toEqual([{ lens: lens(0), has: 1, plan: 2 }]);
    expect(retire).toMatchObject([{ has: 3, plan: 0 }]);
  });
});
