import FFT from 'fft.js';

/** Values in rows and columns, real and imaginary parts in turn: 2·n² numbers. */
export type ComplexSquare = Float64Array;

/** Fourier transforms of squares of one size, with the room they need. */
export interface SquareTransform {
  /** Side of the square, a power of two. */
  readonly n: number;
  /** Transforms in place, unscaled. */
  readonly forward: (of: ComplexSquare) => void;
  /** Back, in place: forward and inverse give what was there. */
  readonly inverse: (of: ComplexSquare) => void;
}

/**
 * Two-dimensional Fourier transforms, rows first, then columns; rows that hold nothing are passed over.
 * @param n side of the square, a power of two
 * @example squareTransform(4).n → 4
 * @source the separable transform; one dimension by fft.js
 */
export function squareTransform(n: number): SquareTransform {
  const fft = new FFT(n);
  const [line, done] = [new Float64Array(2 * n), new Float64Array(2 * n)];
  const run = (of: ComplexSquare, inverse: boolean): void => {
    const one = (): void => (inverse ? fft.inverseTransform(done, line) : fft.transform(done, line));
    for (let y = 0; y < n; y++) {
      const at = y * 2 * n;
      let empty = true;
      for (let i = 0; i < 2 * n; i++) {
        const v = of[at + i] ?? 0;
        line[i] = v;
        if (v !== 0) empty = false;
      }
      if (empty) continue;
      one();
      of.set(done, at);
    }
    for (let x = 0; x < n; x++) {
      for (let y = 0, at = 2 * x; y < n; y++, at += 2 * n) {
        line[2 * y] = of[at] ?? 0;
        line[2 * y + 1] = of[at + 1] ?? 0;
      }
      one();
      for (let y = 0, at = 2 * x; y < n; y++, at += 2 * n) {
        of[at] = done[2 * y] ?? 0;
        of[at + 1] = done[2 * y + 1] ?? 0;
      }
    }
  };
  return { n, forward: (of) => run(of, false), inverse: (of) => run(of, true) };
}
