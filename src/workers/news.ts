import type { FromNews, ToNews } from './news.worker';

/**
 * Hears what changes in the practice, through the one stream that all pages of a browser share. Only in a browser.
 * @returns how to hear no more; where there can be no stream nothing is ever heard, and pages look for themselves
 */
export function hearNews(hearer: (what: FromNews) => void): () => void {
  if (typeof SharedWorker === 'undefined') return () => undefined;
  let worker: SharedWorker;
  try {
    worker = new SharedWorker(new URL('./news.worker.ts', import.meta.url), { type: 'module', name: 'keenfit-news' });
  } catch {
    return () => undefined;
  }
  const say = (what: ToNews): void => worker.port.postMessage(what);
  const hear = (): void => say('hear');
  const bye = (): void => say('bye');
  worker.port.addEventListener('message', ({ data }: MessageEvent<FromNews>) => hearer(data));
  worker.port.start();
  hear();
  // A page that is put away comes back without being loaded anew.
  window.addEventListener('pagehide', bye);
  window.addEventListener('pageshow', hear);
  return () => {
    bye();
    window.removeEventListener('pagehide', bye);
    window.removeEventListener('pageshow', hear);
    worker.port.close();
  };
}
