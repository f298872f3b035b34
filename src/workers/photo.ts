import { wrap, type Remote } from 'comlink';
import type { PhotoApi } from './photo.worker';

/** Reading pictures, in a thread of its own. */
export interface PhotoThread {
  readonly api: Remote<PhotoApi>;
  readonly end: () => void;
}

/**
 * Starts the thread. Only in a browser.
 * @param broken told once when the thread cannot be had
 * @returns null when no thread can be started
 */
export function startPhoto(broken: () => void): PhotoThread | null {
  try {
    const worker = new Worker(new URL('./photo.worker.ts', import.meta.url), { type: 'module' });
    worker.addEventListener('error', broken, { once: true });
    return { api: wrap<PhotoApi>(worker), end: () => worker.terminate() };
  } catch {
    broken();
    return null;
  }
}
