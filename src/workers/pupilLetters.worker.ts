import { expose, transfer } from 'comlink';
import { asWearerSees, readyLetters, seenByPupils, squareTransform, type Ink, type LettersReady, type PowerVector } from '../core';

/** One look at the letters: through what, with which pupil (mm), and what is missing for near (D). */
export interface AskedLook {
  readonly residual: PowerVector;
  readonly pupilMm: number;
  readonly near: number;
}
/** How dense the ink is far and near, 0 to 255, pixel by pixel. */
export interface LookDrawn {
  readonly far: Uint8ClampedArray;
  readonly near: Uint8ClampedArray;
}

const densities = (ink: Float32Array): Uint8ClampedArray => Uint8ClampedArray.from(ink, (of) => of * 255);

let letters: LettersReady | null = null;
const api = {
  /** The letters that are looked at from now on: a square whose side is a power of two. */
  take: (picture: Ink, arcminPerPixel: number): void => {
    letters = readyLetters(squareTransform(picture.width), arcminPerPixel, picture.ink);
  },
  /** Letters as the wearer would see them, look by look. */
  seen: (looks: readonly AskedLook[]): readonly LookDrawn[] => {
    const ready = letters;
    if (ready === null) throw new Error('no letters');
    const drawn = looks.map(({ residual, pupilMm, near }) => {
      const seen = { pupilMm, residual: asWearerSees(residual) };
      const [atFar, atNear] = seenByPupils(ready, { ...seen, vergence: 0 }, { ...seen, vergence: near });
      return { far: densities(atFar), near: densities(atNear) };
    });
    return transfer(
      drawn,
      drawn.flatMap((d) => [d.far.buffer as ArrayBuffer, d.near.buffer as ArrayBuffer]),
    );
  },
};
export type PupilLettersApi = typeof api;

expose(api);
