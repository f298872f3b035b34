import type { SoFarApi } from './soFar.worker';
import { startThread, type Thread } from './thread';

/** Ranks while somebody types, in a thread of its own; see {@link startThread}. Where none can be had the caller reckons by itself. */
export const startSoFar = (broken: () => void): Thread<SoFarApi> | null =>
  startThread<SoFarApi>(() => new Worker(new URL('./soFar.worker.ts', import.meta.url), { type: 'module' }), broken);
