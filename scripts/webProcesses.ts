// Several web server processes on one port: node webProcesses.ts PORT COUNT. One that dies is replaced, after a pause that grows.
import cluster from 'node:cluster';
import { join } from 'node:path';
import { growingPause } from './lib/keepRunning';
import { letGoWhenItEnds } from './lib/letGo';

const [port = '', count = '1'] = process.argv.slice(2);
cluster.setupPrimary({
  exec: join('node_modules', 'next', 'dist', 'bin', 'next'),
  args: ['start', '-H', '127.0.0.1', '-p', port],
  // What this script itself needs must not reach the web server.
  execArgv: [],
  silent: true,
});

let ready = 0;
const pauseAfter = growingPause();
let stopping = false;

function start(): void {
  if (stopping) return;
  const worker = cluster.fork();
  letGoWhenItEnds(worker);
  const born = Date.now();
  worker.process.stderr?.pipe(process.stderr);
  worker.process.stdout?.on('data', (chunk: Buffer) => {
    if (!/Ready/.test(chunk.toString())) return;
    ready += 1;
    if (ready === Number(count)) console.log('web ready');
  });
  worker.on('exit', (code, signal) => {
    if (stopping) return endWhenNoneIsLeft();
    const pause = pauseAfter(Date.now() - born);
    console.error(`Keen Fit: a web process ended (${signal ?? code}); another one starts in ${pause / 1000} s`);
    setTimeout(start, pause);
  });
}

function endWhenNoneIsLeft(): void {
  if (Object.keys(cluster.workers ?? {}).length === 0) process.exit(0);
}

for (let i = 0; i < Number(count); i++) start();
for (const signal of ['SIGTERM', 'SIGINT'] as const) {
  process.on(signal, () => {
    stopping = true;
    for (const worker of Object.values(cluster.workers ?? {})) worker?.process.kill('SIGTERM');
    endWhenNoneIsLeft();
  });
}
