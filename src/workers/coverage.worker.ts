import { expose } from 'comlink';
import {
  coverageProblemSteps,
  coverageSteps,
  drawerAgainst,
  type CoverageAsked,
  type CoverageFamily,
  type CoverageLens,
  type CoverageNeeds,
  type CoveragePlan,
  type DrawerDifference,
  type DrawerLens,
} from '../core';

export interface CoverageQuestion {
  readonly needs: readonly CoverageNeeds[];
  readonly families: readonly CoverageFamily[];
  readonly asked: CoverageAsked;
  readonly drawer: readonly DrawerLens[];
}
export interface CoverageAnswer {
  readonly plan: CoveragePlan;
  /** The lenses of the plan, and how many of each. */
  readonly keep: readonly { readonly lens: CoverageLens; readonly count: number }[];
  readonly buy: readonly DrawerDifference[];
  readonly retire: readonly DrawerDifference[];
}

let going = true;
/** A moment in which a wish to stop is heard. */
const breath = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));
/** Steps made between two of them. */
const A_BREATH = 25;

/** Makes steps to the end, or until somebody wants them to stop. */
async function made<T>(steps: Generator<number, T, boolean | undefined>, told: (step: number) => void): Promise<T> {
  let step = steps.next();
  for (let n = 1; !step.done; n++) {
    if (n % A_BREATH === 0) {
      told(step.value);
      await breath();
    }
    step = steps.next(going);
  }
  return step.value;
}

const api = {
  /** Ends the plan under way: what it has so far is the plan. */
  stop(): void {
    going = false;
  },
  /** @param told how far it is, 0 to 1 */
  async plan({ needs, families, asked, drawer }: CoverageQuestion, told: (share: number) => void): Promise<CoverageAnswer> {
    going = true;
    const problem = await made(coverageProblemSteps(needs, families), (done) => told((done / Math.max(1, needs.length)) * 0.3));
    const plan = await made(coverageSteps(problem, asked), (share) => told(0.3 + share * 0.7));
    const keep = plan.keep.flatMap(({ lens, count }) => (problem.lenses[lens] ? [{ lens: problem.lenses[lens], count }] : []));
    return { plan, keep, ...drawerAgainst(problem, plan, drawer) };
  },
};
export type CoverageApi = typeof api;

expose(api);
