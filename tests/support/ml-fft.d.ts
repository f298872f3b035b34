declare module 'ml-fft' {
  /** One transform at a time, of the side it was made ready for. */
  export const FFT: {
    init: (side: number) => void;
    /** Transforms the real and imaginary parts of a square in place. */
    fft2d: (real: Float64Array, imaginary: Float64Array) => void;
  };
}
