import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { build } from 'esbuild';
import type { Sql } from '../../src/db/client';

/** What is to be done once, however often it dies on the way. */
export interface Crashing {
  /** A job that `dieAt` knows. */
  readonly job: 'dispatchOrders' | 'askSuppliers' | 'cancelOrders' | 'sendMessages' | 'answerSellers' | 'press';
  readonly databaseUrl: string;
  /** The same database as its owner sees it. */
  readonly owner: Sql;
  /** Whom it calls; of a press, the file that says what is pressed. */
  readonly outsideUrl: string;
  /** Makes something due; its identity. */
  readonly prepare: () => Promise<string>;
  readonly now: () => Promise<string>;
  /** Lets the job run on, undisturbed, until nothing is due. */
  readonly recover: () => Promise<void>;
  /** Looks whether it was done, and done once. */
  readonly check: (id: string, diedAt: number) => Promise<void>;
}

/** Made once, in one piece: a process that is killed a moment later should not take seconds to begin. Beside the packages that it asks for. */
const FOLDER = join('node_modules', '.cache', 'keenfit-crash');
let made: Promise<unknown> | null = null;
const ready = (): Promise<unknown> =>
  (made ??= build({
    entryPoints: [join('tests', 'support', 'dieAt.ts')],
    outdir: FOLDER,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    splitting: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    packages: 'external',
    conditions: ['react-server'],
    logLevel: 'error',
  }));

async function run(args: readonly string[]): Promise<boolean> {
  await ready();
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, ['--conditions=react-server', join(FOLDER, 'dieAt.mjs'), ...args], {
      stdio: ['ignore', 'ignore', 'pipe'],
      env: { ...process.env, NODE_OPTIONS: '' },
    });
    let complaint = '';
    child.stderr.on('data', (chunk: Buffer) => (complaint += chunk.toString()));
    child.on('exit', (code, signal) => {
      if (signal === 'SIGKILL') resolve(true);
      else if (code === 0) resolve(false);
      else reject(new Error(complaint));
    });
  });
}

/** Until the server has noticed that the dead one is gone: what it had locked is passed over so long, as another worker's would be. */
async function untilBuried(owner: Sql): Promise<void> {
  for (let tries = 0; tries < 500; tries++) {
    const left = await owner`select 1 from pg_stat_activity where application_name = 'keenfit-dying' and datname = current_database()`;
    if (left.length === 0) return;
    await new Promise((done) => setTimeout(done, 20));
  }
  throw new Error('the dead process still has a session');
}

/**
 * Kills a job at every one of its steps in turn, statements and calls alike, and looks each time whether what it was about is
 * done all the same, and once.
 * @param most steps that it has at most; `every` how many of them pass between two killings, where they are of one transaction
 * @returns how many steps it was killed at; the run that outlived its killing ends it
 */
export async function crashAtEvery(of: Crashing, { most = 60, every = 1 } = {}): Promise<number> {
  for (let at = 1; at <= most; at += every) {
    const id = await of.prepare();
    const died = await run([of.job, String(at), of.databaseUrl, of.outsideUrl, await of.now()]);
    await untilBuried(of.owner);
    await of.recover();
    await of.check(id, at);
    if (!died) return at - 1;
  }
  throw new Error('it never came to an end');
}
