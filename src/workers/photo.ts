import { startThread, type Thread } from './thread';
import type { PhotoApi } from './photo.worker';

/** Reads pictures in a thread of its own; see {@link startThread}. */
export const startPhoto = (broken: () => void): Thread<PhotoApi> | null =>
  startThread<PhotoApi>(() => new Worker(new URL('./photo.worker.ts', import.meta.url), { type: 'module' }), broken);
