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

/** An estimate as it is recorded: in quarters, and no smaller than the smallest there is. Null where none is needed. @example addToRecord(55) → 2 */
export function addToRecord(age: number): Dioptres | null {
  const add = roundToStep(estimatedAdd(age), 0.25, 'plus');
  return add < 0.25 ? null : add;
}
