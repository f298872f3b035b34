// The demo: database, web server, jobs, supplier and seller stand-ins on this machine. Ctrl-C stops all it started.
import { Temporal } from 'temporal-polyfill';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { bringToToday } from '../demo/lives/bringToToday';
import { isHalfMade } from '../demo/lives/halfMade';
import { DEMO_PASSWORD, DEMO_PEOPLE } from '../demo/load';
import { DEMO_ASKS } from '../demo/sellerAsks';
import { connect } from '../src/db/client';
import { ensureBuild } from './lib/build';
import { DEMO_NEEDS, megabytes, roomAt, watchRoom } from './lib/diskRoom';
import { startCluster, type Cluster } from './lib/cluster';
import { lanAddresses, startLanProxy } from './lib/lanProxy';
import { clusterFolder } from './lib/place';
import { whenNobodyReads } from './lib/nobodyReads';
import { portNear } from './lib/ports';
import { makeDemo } from './lib/makeDemo';
import { dropDatabase, ensureDatabase, prepareDatabase } from './lib/prepareDatabase';
import { startSite, type Site } from './lib/site';

const flags = new Set(process.argv.slice(2));
const known = ['--fresh', '--lan', '--dev'];
const unknown = [...flags].find((flag) => !known.includes(flag));
if (unknown) stopWith(`does not know ${unknown}; it takes ${known.join(', ')}`);

const data = join(process.cwd(), '.data');
const running = join(data, 'demo.json');
mkdirSync(data, { recursive: true, mode: 0o755 });

function stopWith(line: string): never {
  console.error(`\nKeen Fit: ${line}`);
  process.exit(1);
}

function refuseSecond(): void {
  if (!existsSync(running)) return;
  const { pid, url } = JSON.parse(readFileSync(running, 'utf8')) as { pid: number; url: string };
  try {
    process.kill(pid, 0);
  } catch {
    return;
  }
  if (pid !== process.pid) stopWith(`a demo of this folder runs already at ${url} (process ${pid}).`);
}

/** Half a demo helps nobody: what lacks is said before anything is made. */
function refuseWithoutRoom(path: string): void {
  const folder = existsSync(path) ? path : dirname(path);
  const room = roomAt(existsSync(folder) ? folder : data);
  if (room < DEMO_NEEDS)
    stopWith(`the disk of ${folder} has ${megabytes(room)} left; the demo needs ${megabytes(DEMO_NEEDS)}. Remove something, and start again.`);
}

/** Another start of this folder finds this one. On a full disk it is not found, and everything else goes on. */
function noteRunning(url: string): void {
  try {
    writeFileSync(running, JSON.stringify({ pid: process.pid, url }));
  } catch (cause) {
    console.error(`Keen Fit: ${running} could not be written (${cause instanceof Error ? cause.message : String(cause)}).`);
  }
}

let cluster: Cluster | null = null;
let site: Site | null = null;
let stopping = false;
async function stop(code: number): Promise<never> {
  if (!stopping) {
    stopping = true;
    console.log('\nStopping …');
    await site?.stop();
    await cluster?.stop();
    rmSync(running, { force: true });
  }
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => void stop(0));
whenNobodyReads(() => void stop(0));

/** Data that were cut off while they were made are of no use: ours are made anew, those in somebody's own database are theirs to remove. */
async function dropHalfMade(url: string, supplierFile: string): Promise<void> {
  const owner = connect(url, { max: 1 });
  const half = await isHalfMade(owner);
  await owner.end();
  if (!half) return;
  if (!cluster) stopWith('the last start was cut off while it made the demo’s data in your database; empty that database, and start again.');
  console.log('The last start was cut off while it made the demo’s data: they are made anew.');
  rmSync(supplierFile, { force: true });
  await dropDatabase(cluster.url, 'keenfit');
  await ensureDatabase(cluster.url, 'keenfit');
}

async function main(): Promise<void> {
  refuseSecond();
  const place = clusterFolder();
  let url = process.env.DATABASE_URL;
  if (flags.has('--fresh')) {
    rmSync(join(data, 'supplier.json'), { force: true });
    if (url) stopWith('--fresh empties the demo’s own database only; with DATABASE_URL, empty yours yourself.');
    rmSync(place.path, { recursive: true, force: true });
  }
  if (!url) {
    if (!existsSync(join(place.path, 'PG_VERSION'))) refuseWithoutRoom(place.path);
    if (place.elsewhere) console.log(`The database lives in ${place.path}: its user may not enter this folder.`);
    cluster = await startCluster(place.path, { keepRunning: true });
    await ensureDatabase(cluster.url, 'keenfit');
    url = cluster.url('keenfit');
  }
  await dropHalfMade(url, join(data, 'supplier.json'));
  const dev = flags.has('--dev');
  const now = Temporal.Now.instant().round('millisecond').toString();
  const ready = await prepareDatabase(url, { demoAt: null });
  const [made, build] = await Promise.all([makeDemo(url, now, join(data, 'supplier.json')), dev ? null : ensureBuild('.next')]);
  if (made) console.log('Demo data made: all people, lenses and figures are invented.');
  if (build?.built) console.log('Application built.');
  const owner = connect(url, { max: 1 });
  await bringToToday(owner, now);
  await owner.end();
  const webPort = await portNear(3210);
  site = await startSite({
    camera: true,
    databaseUrl: ready.appUrl,
    mode: 'demo',
    distDir: dev ? '.next-dev' : '.next',
    dev,
    webPort,
    demoPassword: DEMO_PASSWORD,
    supplierFile: join(data, 'supplier.json'),
    sellerFirst: JSON.stringify(DEMO_ASKS),
    logFile: join(data, 'demo.log'),
    trustProxy: flags.has('--lan'),
    keepRunning: true,
  });
  const addresses = [site.url];
  if (flags.has('--lan')) {
    const lanPort = await portNear(3443);
    await startLanProxy(webPort, lanPort, join(data, 'certificate.json'));
    addresses.push(...lanAddresses().map((ip) => `https://${ip}:${lanPort}  (a certificate of this machine's own: accept it once)`));
  }
  noteRunning(site.url);
  watchRoom(data, console.error);
  console.log(`\nKeen Fit is ready:\n${addresses.map((a) => `  ${a}`).join('\n')}\n\nSign in as (password for all: ${DEMO_PASSWORD})`);
  for (const person of DEMO_PEOPLE) console.log(`  ${person.account.padEnd(8)}${person.name}, ${person.title}`);
  console.log('\nCtrl-C stops everything.');
}

main().catch(async (cause: unknown) => {
  console.error(`\nKeen Fit: ${cause instanceof Error ? cause.message : String(cause)}`);
  await stop(1);
});
