import { proxy, wrap, type Remote } from 'comlink';
import type { CoverageAnswer, CoverageApi, CoverageQuestion } from './coverage.worker';

/** Planning the drawer, in a thread of its own. */
export interface CoverageThread {
  readonly plan: (question: CoverageQuestion, told: (share: number) => void) => Promise<CoverageAnswer>;
  readonly stop: () => void;
  readonly end: () => void;
}

/** Starts the thread. Only in a browser; throws where none can be had. */
export function startCoverage(): CoverageThread {
  const worker = new Worker(new URL('./coverage.worker.ts', import.meta.url), { type: 'module' });
  const api: Remote<CoverageApi> = wrap<CoverageApi>(worker);
  return { plan: (question, told) => api.plan(question, proxy(told)), stop: () => void api.stop(), end: () => worker.terminate() };
}
