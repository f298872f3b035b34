import type { AskedLook, LookDrawn, PupilLettersApi } from './pupilLetters.worker';
import { startThread, type Thread } from './thread';

export type { AskedLook, LookDrawn };

/** Draws letters through pupils in a thread of its own; see {@link startThread}. */
export const startPupilLetters = (broken: () => void): Thread<PupilLettersApi> | null =>
  startThread<PupilLettersApi>(() => new Worker(new URL('./pupilLetters.worker.ts', import.meta.url), { type: 'module' }), broken);
