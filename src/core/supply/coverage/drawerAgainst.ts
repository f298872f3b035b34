import type { CoveragePlan } from './plan';
import { coverageKey, type CoverageLens, type CoverageProblem } from './problem';

/** Lenses of the drawer, counted. */
export interface DrawerLens extends CoverageLens {
  readonly count: number;
}
export interface DrawerDifference {
  readonly lens: CoverageLens;
  readonly has: number;
  readonly plan: number;
}

/** What to buy, and what of the drawer serves nobody's plan. */
export function drawerAgainst(
  problem: CoverageProblem,
  plan: CoveragePlan,
  drawer: readonly DrawerLens[],
): { readonly buy: readonly DrawerDifference[]; readonly retire: readonly DrawerDifference[] } {
  const had = new Map<string, DrawerLens>();
  for (const lens of drawer) {
    const key = coverageKey(lens);
    had.set(key, { ...lens, count: (had.get(key)?.count ?? 0) + lens.count });
  }
  const planned = new Map(
    plan.keep.flatMap(({ lens, count }) => (problem.lenses[lens] ? [[coverageKey(problem.lenses[lens]), { lens: problem.lenses[lens], count }] as const] : [])),
  );
  const buy = [...planned].flatMap(([key, { lens, count }]) => {
    const has = had.get(key)?.count ?? 0;
    return has < count ? [{ lens, has, plan: count }] : [];
  });
  const retire = [...had].flatMap(([key, lens]) => {
    const of = planned.get(key)?.count ?? 0;
    return lens.count > of ? [{ lens, has: lens.count, plan: of }] : [];
  });
  return { buy, retire };
}
