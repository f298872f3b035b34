import type { CoverageProblem } from './problem';

type Wearer = CoverageProblem['wearers'][number];
/** Sets of each lens that are kept: 0, 1, or 2 where both eyes of somebody need the same lens. */
export type Sets = Uint8Array;

const has = (sets: Sets, lenses: readonly number[]): boolean => lenses.some((l) => (sets[l] ?? 0) > 0);

/**
 * Does a wearer walk out with a pair? Each eye needs a lens of its own: where one lens would serve both, two of it are needed.
 * @source a matching of two eyes to lenses (Hall's condition)
 */
export function isCovered({ right, left }: Wearer, sets: Sets): boolean {
  if (right === null || left === null) return has(sets, right ?? left ?? []);
  if (!has(sets, right) || !has(sets, left)) return false;
  const both = new Set(left);
  let capacity = 0;
  for (const l of right) capacity += both.has(l) ? (sets[l] ?? 0) : Math.min(1, sets[l] ?? 0);
  for (const l of left) if (!right.includes(l)) capacity += Math.min(1, sets[l] ?? 0);
  return capacity >= 2;
}

export const coveredOf = (problem: CoverageProblem, sets: Sets): number => problem.wearers.reduce((n, w) => (isCovered(w, sets) ? n + 1 : n), 0);

/** How much is planned. */
export interface CoverageAsked {
  /** Lenses to keep at the most. */
  readonly most: number;
  /** Of each lens that is kept, so many: as many wearers in a row are served before it is bought again. */
  readonly depth: number;
}

/** One thing to add: a set of a lens, or two sets at once. */
type Move = readonly [number] | readonly [number, number];

const MOST_SETS = 2;
/** Moves of the best estimate that are counted exactly. */
const COUNTED = 12;

/** The addition that covers most wearers for a set; null where none covers anybody. */
function bestMove(problem: CoverageProblem, sets: Sets, open: readonly number[], left: number): Move | null {
  const single = new Map<number, number>();
  const pairs = new Map<number, number>();
  const width = problem.lenses.length;
  const add = (to: Map<number, number>, key: number): void => void to.set(key, (to.get(key) ?? 0) + 1);
  for (const w of open) {
    const wearer = problem.wearers[w];
    if (!wearer) continue;
    const { right, left: l } = wearer;
    if (right === null || l === null) {
      for (const lens of right ?? l ?? []) add(single, lens);
      continue;
    }
    const [hasRight, hasLeft] = [has(sets, right), has(sets, l)];
    if (hasRight && hasLeft) for (const lens of new Set([...right, ...l])) add(single, lens);
    else if (hasRight) for (const lens of l) add(single, lens);
    else if (hasLeft) for (const lens of right) add(single, lens);
    else for (const a of right) for (const b of l) add(pairs, a < b ? a * width + b : b * width + a);
  }
  const fits = (lens: number, more = 1): boolean => (sets[lens] ?? 0) + more <= MOST_SETS;
  const moves: { readonly move: Move; readonly worth: number }[] = [];
  for (const [lens, gain] of single) if (fits(lens)) moves.push({ move: [lens], worth: gain });
  if (left >= 2)
    for (const [key, gain] of pairs) {
      const [a, b] = [Math.floor(key / width), key % width];
      if (a === b ? !fits(a, 2) : !fits(a) || !fits(b)) continue;
      const alone = (single.get(a) ?? 0) + (a === b ? 0 : (single.get(b) ?? 0));
      moves.push({ move: [a, b], worth: (gain + alone) / 2 });
    }
  moves.sort((x, y) => y.worth - x.worth);
  let best: Move | null = null;
  let most = 0;
  for (const { move } of moves.slice(0, COUNTED)) {
    const tried = sets.slice();
    for (const lens of move) tried[lens] = (tried[lens] ?? 0) + 1;
    const gain = open.reduce((n, w) => (problem.wearers[w] && isCovered(problem.wearers[w], tried) ? n + 1 : n), 0) / move.length;
    if (gain > most) [best, most] = [move, gain];
  }
  return best;
}

const uncovered = (problem: CoverageProblem, sets: Sets): number[] => problem.wearers.flatMap((w, i) => (isCovered(w, sets) ? [] : [i]));

/** Adds the best there is until the sets are used up, and says after each addition how many are used. */
function* filling(problem: CoverageProblem, sets: Sets, budget: number): Generator<CoveragePoint, void> {
  let used = sets.reduce((a, b) => a + b, 0);
  let open = uncovered(problem, sets);
  while (used < budget) {
    const move = bestMove(problem, sets, open, budget - used);
    if (!move) return;
    for (const lens of move) sets[lens] = (sets[lens] ?? 0) + 1;
    used += move.length;
    open = open.filter((w) => problem.wearers[w] && !isCovered(problem.wearers[w], sets));
    yield { lenses: used, covered: problem.wearers.length - open.length };
  }
}

/** A stream of numbers from 0 to 1 that is the same each time. */
function chance(seed: number): () => number {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A place on the way: how many lenses let how many wearers walk out. */
export interface CoveragePoint {
  readonly lenses: number;
  readonly covered: number;
}
export interface CoveragePlan {
  /** Lenses to keep, by their place in the problem. */
  readonly keep: readonly { readonly lens: number; readonly count: number }[];
  readonly covered: number;
  /** Wearers whom no number of lenses of these families would serve. */
  readonly unreachable: number;
  readonly wearers: number;
  /** Coverage as lenses are added one after the other. */
  readonly points: readonly CoveragePoint[];
}

/** How often a part of the plan is thrown away and planned anew. */
const ROUNDS = 120;

/**
 * Which lenses let most wearers walk out with a pair: the best addition each time, both eyes of a wearer at once, and then parts of
 * the plan thrown away and planned anew, kept where more are served. Says on its way how far it is, 0 to 1; told `false` it stops
 * with what it has.
 * @source maximum coverage by greedy additions with ruin and recreate; how near it comes to the optimum is printed by the bench
 */
export function* coverageSteps(problem: CoverageProblem, asked: CoverageAsked, rounds = ROUNDS): Generator<number, CoveragePlan, boolean | undefined> {
  const budget = Math.floor(asked.most / Math.max(1, asked.depth));
  let sets: Sets = new Uint8Array(problem.lenses.length);
  const points: CoveragePoint[] = [{ lenses: 0, covered: 0 }];
  let going = true;
  for (const { lenses, covered } of filling(problem, sets, budget)) {
    points.push({ lenses: lenses * asked.depth, covered });
    going = (yield (lenses / Math.max(1, budget)) * 0.5) !== false;
    if (!going) break;
  }
  let covered = coveredOf(problem, sets);
  const next = chance(20_261_124);
  for (let round = 0; going && round < rounds; round++) {
    const tried = sets.slice();
    const kept = [...tried.keys()].filter((l) => (tried[l] ?? 0) > 0);
    const away = Math.max(2, Math.round(kept.length * (0.1 + 0.2 * next())));
    for (let i = 0; i < away; i++) {
      const lens = kept[Math.floor(next() * kept.length)];
      if (lens !== undefined && (tried[lens] ?? 0) > 0) tried[lens] = (tried[lens] ?? 0) - 1;
    }
    for (const _point of filling(problem, tried, budget)) continue;
    const now = coveredOf(problem, tried);
    if (now >= covered) [sets, covered] = [tried, now];
    going = (yield 0.5 + ((round + 1) / rounds) * 0.5) !== false;
  }
  const everything = new Uint8Array(problem.lenses.length).fill(MOST_SETS);
  return {
    keep: [...sets.entries()].flatMap(([lens, count]) => (count > 0 ? [{ lens, count: count * asked.depth }] : [])),
    covered,
    unreachable: problem.wearers.length - coveredOf(problem, everything),
    wearers: problem.wearers.length,
    points,
  };
}

/** The whole plan at once. */
export function planCoverage(problem: CoverageProblem, asked: CoverageAsked, rounds = ROUNDS): CoveragePlan {
  const steps = coverageSteps(problem, asked, rounds);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
