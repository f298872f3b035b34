// npm run serve: web server and jobs for a real practice, on the database that `npm run setup` prepared.
import { ensureBuild } from './lib/build';
import { startTypeScript } from './lib/children';
import { keepRunning } from './lib/keepRunning';
import { whenNobodyReads } from './lib/nobodyReads';
import { portNear } from './lib/ports';
import { startWebServer } from './lib/webServer';
import { availableParallelism } from 'node:os';

const url = process.env.KEENFIT_DATABASE_URL;
if (!url) {
  console.error('Keen Fit: set KEENFIT_DATABASE_URL to the address that npm run setup printed.');
  process.exit(1);
}
await ensureBuild('.next');
const port = await portNear(Number(process.env.PORT ?? 3210));
const env = {
  ...(process.env.KEENFIT_SUPPLIER_URL ? { KEENFIT_SUPPLIER_URL: process.env.KEENFIT_SUPPLIER_URL } : {}),
  // It listens on this machine alone: whatever forwards to it is the practice's own, and says where a request came from.
  KEENFIT_TRUST_PROXY: '1',
  KEENFIT_MODE: 'production',
  KEENFIT_DATABASE_URL: url,
  KEENFIT_DIST: '.next',
};
const children = [
  await keepRunning('the jobs process', () => startTypeScript('src/jobs/main.ts', { env, readyWhen: /jobs ready/ })),
  await keepRunning('the web server', () => startWebServer({ port, processes: availableParallelism(), env })),
];
console.log(`Keen Fit is ready at http://127.0.0.1:${port} (put https in front of it for other machines). Ctrl-C stops it.`);
if (!env.KEENFIT_SUPPLIER_URL) console.log('No KEENFIT_SUPPLIER_URL is set: orders are kept and wait.');
let stopping = false;
const stop = (): void => {
  if (stopping) return;
  stopping = true;
  void Promise.all(children.map((child) => child.stop())).then(() => process.exit(0));
};
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, stop);
whenNobodyReads(stop);
