import { roundToStep, type Dioptres } from '../units';

/** Distance near work is done at, as the vergence it asks of an eye in contact lenses (D): 40 cm. */
export const NEAR_DEMAND: Dioptres = 2.5;

/**
 * Least amplitude of accommodation to expect at an age, 15 − 0.25 · age, never below 0 (D).
 * @param age whole years
 * @example minimumAmplitude(40) → 5
 * @source Hofstetter 1950, from memory
 */
export const minimumAmplitude = (age: number): Dioptres => Math.max(0, 15 - 0.25 * age);

/**
 * Near addition to expect at an age: what the working distance asks less half the least amplitude, never below 0 (D).
 * The mean line would give too little add.
 * @param demand vergence of the working distance, D
 * @example estimatedAdd(50) → 1.25
 * @source Hofstetter 1950, from memory; half the amplitude in reserve is common practice
 */
export const estimatedAdd = (age: number, demand: Dioptres = NEAR_DEMAND): Dioptres => Math.max(0, demand - minimumAmplitude(age) / 2);

/** Additions for 40 cm by age. Source: the trade's table, from memory. */
const TRADE_TABLE: readonly (readonly [number, Dioptres])[] = [
  [45, 1],
  [48, 1.5],
  [50, 1.75],
  [55, 2.25],
  [60, 2.5],
];

/**
 * Near addition by the trade's table, in a straight line between its ages; before its first age by the least amplitude, after its
 * last no more; for another distance than 40 cm with what that asks more or less, never below 0 (D).
 * @example tableAdd(50) → 1.75
 * @source the trade's table, from memory: 45 +1.00, 48 +1.50, 50 +1.75, 55 +2.25, 60 +2.50
 */
export function tableAdd(age: number, demand: Dioptres = NEAR_DEMAND): Dioptres {
  const after = TRADE_TABLE.findIndex(([at]) => at > age);
  const [last] = TRADE_TABLE.slice(-1);
  const [to, from] = [TRADE_TABLE[after], TRADE_TABLE[after - 1]];
  if (!to) return Math.max(0, (last?.[1] ?? 0) + demand - NEAR_DEMAND);
  if (!from) return estimatedAdd(age, demand);
  return Math.max(0, from[1] + ((to[1] - from[1]) * (age - from[0])) / (to[0] - from[0]) + demand - NEAR_DEMAND);
}

/** How a practice estimates an addition that was not measured. */
export const ADD_BY_AGE = ['tradeTable', 'minimumAmplitude'] as const;
export type AddByAge = (typeof ADD_BY_AGE)[number];

/**
 * An estimate as it is recorded: in quarters, and no smaller than the smallest there is. Null where none is needed.
 * @example addToRecord(55) → 2.25
 */
export function addToRecord(age: number, by: AddByAge = 'tradeTable', demand: Dioptres = NEAR_DEMAND): Dioptres | null {
  const add = roundToStep(by === 'tradeTable' ? tableAdd(age, demand) : estimatedAdd(age, demand), 0.25, 'plus');
  return add < 0.25 ? null : add;
}
