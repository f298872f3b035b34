import { wrap, type Remote } from 'comlink';

/** What a worker offers, in a thread of its own. */
export interface Thread<Api> {
  readonly api: Remote<Api>;
  readonly end: () => void;
}

/**
 * Starts a thread. Only in a browser.
 * @param start makes the worker: the bundler wants to see its address where it is made
 * @param broken told once when the thread cannot be had
 * @returns null when no thread can be started
 */
export function startThread<Api>(start: () => Worker, broken: () => void): Thread<Api> | null {
  try {
    const worker = start();
    worker.addEventListener('error', broken, { once: true });
    return { api: wrap<Api>(worker), end: () => worker.terminate() };
  } catch {
    broken();
    return null;
  }
}
