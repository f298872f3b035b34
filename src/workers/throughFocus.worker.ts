import { expose, transfer } from 'comlink';
import { seenThrough, type Ink, type SeenThrough, type ToSee } from '../core';

const api = {
  /** Acuity over vergence, of each eye and of both; and letters as each eye would see them. */
  seen: (asked: ToSee, picture: Ink, arcminPerPixel: number): SeenThrough => {
    const seen = seenThrough(asked, picture, arcminPerPixel);
    return transfer(
      seen,
      [...seen.letters.right, ...seen.letters.left].map((l) => l.buffer as ArrayBuffer),
    );
  },
};
export type ThroughFocusApi = typeof api;

expose(api);
