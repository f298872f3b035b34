import { expose } from 'comlink';
import { throughFocus, type Eye, type EyeThroughLens, type ThroughFocus } from '../core';

const api = {
  /** Acuity over vergence, of each eye and of both. */
  curves: (eyes: Readonly<Record<Eye, EyeThroughLens>>): ThroughFocus => throughFocus(eyes),
};
export type ThroughFocusApi = typeof api;

expose(api);
