import { expose, transfer } from 'comlink';
import { seenThrough, type Eye, type Ink, type ThroughFocus, type ToSee } from '../core';

/** Curves, and letters as each eye would see them: how dense their ink is, 0 to 255, pixel by pixel. */
export interface Drawn {
  readonly curves: ThroughFocus;
  readonly letters: Readonly<Record<Eye, readonly Uint8ClampedArray[]>>;
}

/** Ink as a canvas takes it. */
const densities = (ink: Float32Array): Uint8ClampedArray => Uint8ClampedArray.from(ink, (of) => of * 255);

let letters: { readonly picture: Ink; readonly arcminPerPixel: number } | null = null;
const api = {
  /** The letters that are looked at from now on. */
  take: (picture: Ink, arcminPerPixel: number): void => {
    letters = { picture, arcminPerPixel };
  },
  /** Acuity over vergence, of each eye and of both; and the letters as each eye would see them. */
  seen: (asked: ToSee): Drawn => {
    if (letters === null) throw new Error('no letters');
    const seen = seenThrough(asked, letters.picture, letters.arcminPerPixel);
    const drawn = { right: seen.letters.right.map(densities), left: seen.letters.left.map(densities) };
    return transfer(
      { curves: seen.curves, letters: drawn },
      [...drawn.right, ...drawn.left].map((l) => l.buffer as ArrayBuffer),
    );
  },
};
export type ThroughFocusApi = typeof api;

expose(api);
