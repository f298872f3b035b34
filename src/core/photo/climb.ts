import type { Circle } from './plane';

/** A circle, and how well it fits. */
export interface Fitted {
  readonly circle: Circle;
  readonly score: number;
}

/** Ways in which a circle is moved: right, down, larger; and to one side while the other side stays. */
const MOVES = [
  [1, 0, 0],
  [-1, 0, 0],
  [0, 1, 0],
  [0, -1, 0],
  [0, 0, 1],
  [0, 0, -1],
  [1, 0, 1],
  [-1, 0, 1],
] as const;
/** Moves at one step, at most: a circle that still moves then follows nothing. */
const MOST = 40;

/** Moves a circle in ever smaller steps for as long as it fits better. */
export function climb(first: Circle, scoreOf: (circle: Circle) => number, steps: readonly number[]): Fitted {
  let best: Fitted = { circle: first, score: scoreOf(first) };
  for (const step of steps)
    for (let moved = true, turns = 0; moved && turns < MOST; turns++) {
      moved = false;
      for (const [dx, dy, dr] of MOVES) {
        const { x, y, r } = best.circle;
        const circle = { x: x + dx * step, y: y + dy * step, r: r + dr * step };
        const score = scoreOf(circle);
        if (score > best.score) {
          best = { circle, score };
          moved = true;
        }
      }
    }
  return best;
}
