import { wrap, type Remote } from 'comlink';
import type { Drawn, ThroughFocusApi } from './throughFocus.worker';

export type { Drawn };

/** The curves through focus, in a thread of their own. */
export interface ThroughFocusThread {
  readonly api: Remote<ThroughFocusApi>;
  readonly end: () => void;
}

/**
 * Starts the thread. Only in a browser.
 * @param broken told once when the thread cannot be had
 * @returns null when no thread can be started
 */
export function startThroughFocus(broken: () => void): ThroughFocusThread | null {
  try {
    const worker = new Worker(new URL('./throughFocus.worker.ts', import.meta.url), { type: 'module' });
    worker.addEventListener('error', broken, { once: true });
    return { api: wrap<ThroughFocusApi>(worker), end: () => worker.terminate() };
  } catch {
    broken();
    return null;
  }
}
