import { wrap, type Remote } from 'comlink';
import type { SoFarApi } from './soFar.worker';

/** The ranking while typing, in a thread of its own. */
export interface SoFarThread {
  readonly api: Remote<SoFarApi>;
  readonly end: () => void;
}

/**
 * Starts the thread. Only in a browser.
 * @returns null when no thread can be started
 * @param broken told once when the thread cannot be had: the caller then reckons by itself
 */
export function startSoFar(broken: () => void): SoFarThread | null {
  try {
    const worker = new Worker(new URL('./soFar.worker.ts', import.meta.url), { type: 'module' });
    worker.addEventListener('error', broken, { once: true });
    return { api: wrap<SoFarApi>(worker), end: () => worker.terminate() };
  } catch {
    broken();
    return null;
  }
}
