import { wrap, type Remote } from 'comlink';
import type { AskedLook, LookDrawn, PupilLettersApi } from './pupilLetters.worker';

export type { AskedLook, LookDrawn };

/** Letters through pupils, in a thread of their own. */
export interface PupilLettersThread {
  readonly api: Remote<PupilLettersApi>;
  readonly end: () => void;
}

/**
 * Starts the thread. Only in a browser.
 * @param broken told once when the thread cannot be had
 * @returns null when no thread can be started
 */
export function startPupilLetters(broken: () => void): PupilLettersThread | null {
  try {
    const worker = new Worker(new URL('./pupilLetters.worker.ts', import.meta.url), { type: 'module' });
    worker.addEventListener('error', broken, { once: true });
    return { api: wrap<PupilLettersApi>(worker), end: () => worker.terminate() };
  } catch {
    broken();
    return null;
  }
}
