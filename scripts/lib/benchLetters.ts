import { performance } from 'node:perf_hooks';
import { readyLetters, seenByPupils, squareTransform, TRANSFORMS_A_PAIR, type PupilSeen } from '../../src/core';

const SIDE = 256;
const ROUNDS = 60;

/** Middle of some times. */
const middle = (of: number[]): number => of.sort((a, b) => a - b)[of.length >> 1] ?? 0;

/** Letters through a pupil against the bare transforms that the model needs, in one run. */
export function benchLetters(): void {
  const transform = squareTransform(SIDE);
  const dense = Float64Array.from({ length: 2 * SIDE * SIDE }, (_, i) => Math.sin(i));
  const ready = readyLetters(
    transform,
    0.25,
    Float32Array.from({ length: SIDE * SIDE }, (_, i) => (i % 37 < 9 ? 1 : 0)),
  );
  const seen = (m: number): PupilSeen => ({ pupilMm: 5, residual: { m, j0: 0.3, j45: 0.2 }, vergence: 0 });
  const [letters, bare]: [number[], number[]] = [[], []];
  for (let round = 0; round < ROUNDS; round++) {
    let began = performance.now();
    seenByPupils(ready, seen(round / 40), seen(-round / 40));
    letters.push(performance.now() - began);
    began = performance.now();
    for (let i = 0; i < TRANSFORMS_A_PAIR; i++) transform.forward(dense);
    bare.push(performance.now() - began);
    // Kept from growing without bound.
    dense.forEach((v, i) => (dense[i] = v / SIDE ** TRANSFORMS_A_PAIR));
  }
  console.log(
    `\nLetters ${SIDE}² through a pupil, far and near together: ${(middle(letters) / middle(bare)).toFixed(2)} × the ${TRANSFORMS_A_PAIR} transforms that the model needs`,
  );
}
