import { startThread, type Thread } from './thread';
import type { Drawn, ThroughFocusApi } from './throughFocus.worker';

export type { Drawn };

/** Draws the curves through focus in a thread of its own; see {@link startThread}. */
export const startThroughFocus = (broken: () => void): Thread<ThroughFocusApi> | null =>
  startThread<ThroughFocusApi>(() => new Worker(new URL('./throughFocus.worker.ts', import.meta.url), { type: 'module' }), broken);
