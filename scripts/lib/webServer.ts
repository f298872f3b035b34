import { join } from 'node:path';
import { startChild, startTypeScript, type Child, type ChildOptions } from './children';

export interface WebServerOptions extends Pick<ChildOptions, 'env' | 'logFile'> {
  readonly port: number;
  /** Processes on that port; one a core is what a practice is served by. */
  readonly processes?: number;
  readonly dev?: boolean;
}

/** Starts the web server, on this machine's own address alone, and waits until it is ready. */
export function startWebServer({ port, processes = 1, dev = false, ...options }: WebServerOptions): Promise<Child> {
  if (processes > 1) return startTypeScript('scripts/webProcesses.ts', { ...options, readyWhen: /web ready/ }, [String(port), String(processes)]);
  const next = join('node_modules', 'next', 'dist', 'bin', 'next');
  return startChild([next, dev ? 'dev' : 'start', '-H', '127.0.0.1', '-p', String(port)], { ...options, readyWhen: /Ready/ });
}
