// Two busy web processes of which one is killed again and again while connections wait for it: prints how many were never answered nor closed.
// With "without", Node's cluster is left as it is.
import cluster from 'node:cluster';
import { createServer } from 'node:http';
import { letGoWhenItEnds } from '../../scripts/lib/letGo';
import { freePort } from '../../scripts/lib/ports';

const KILLS = 3;
/** What is not answered within this is hung, ms: long where none must be, since a loaded machine answers late. */
const PATIENCE = process.argv[2] === 'without' ? 2000 : 25_000;
const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));

if (cluster.isPrimary) {
  const port = await freePort();
  const start = (): void => {
    const worker = cluster.fork({ PORT: String(port) });
    if (process.argv[2] !== 'without') letGoWhenItEnds(worker);
    worker.on('listening', () => void listening.add(worker.id));
    worker.on('exit', () => {
      listening.delete(worker.id);
      start();
    });
  };
  const listening = new Set<number>();
  const bothListen = async (): Promise<void> => {
    while (listening.size < 2) await pause(20);
  };
  start();
  start();
  await bothListen();
  let hung = 0;
  let answered = 0;
  const ask = (): Promise<void> =>
    fetch(`http://127.0.0.1:${port}`, { headers: { connection: 'close' }, signal: AbortSignal.timeout(PATIENCE) }).then(
      () => void answered++,
      (error: unknown) => void (hung += error instanceof Error && error.name === 'TimeoutError' ? 1 : 0),
    );
  for (let kill = 0; kill < KILLS; kill++) {
    const asked = Array.from({ length: 40 }, ask);
    await pause(40);
    Object.values(cluster.workers ?? {})[0]?.process.kill('SIGKILL');
    await Promise.all(asked);
    await bothListen();
  }
  console.log(JSON.stringify({ hung, answered }));
  process.exit(0);
} else {
  createServer((_, response) => {
    const until = Date.now() + 15;
    while (Date.now() < until);
    response.end('here');
  }).listen(Number(process.env['PORT']), '127.0.0.1');
}
