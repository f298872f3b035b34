/** Chance from a seed: the same seed gives the same practice, or the same pictures. */
export interface Chance {
  /** At least `from`, less than `to`. */
  between(from: number, to: number): number;
  /** A whole number, both ends included. */
  whole(from: number, to: number): number;
  happens(probability: number): boolean;
  pick<T>(of: readonly T[]): T;
}

/** @source mulberry32, public domain (T. Ettinger): enough for made-up people and pictures, and for nothing else */
export function chanceFrom(seed: number): Chance {
  let state = seed >>> 0;
  const next = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t = (t + Math.imul(t ^ (t >>> 7), t | 61)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
  const between = (from: number, to: number): number => from + next() * (to - from);
  const whole = (from: number, to: number): number => Math.floor(between(from, to + 1));
  return {
    between,
    whole,
    happens: (probability) => next() < probability,
    pick: (of) => {
      const picked = of[whole(0, of.length - 1)];
      if (picked === undefined) throw new Error('nothing to pick from');
      return picked;
    },
  };
}
