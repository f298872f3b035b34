import { spawn, type ChildProcess } from 'node:child_process';
import { createReadStream, existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { openAppLogin } from '../../src/db/appRole';
import { connect, type Sql } from '../../src/db/client';
import { migrate, readMigrations } from '../../src/db/migrate';
import { openBackup, wrapDump } from './backupFile';
import { postgresBinaries } from './postgresBinaries';

/** How PostgreSQL's own programs are told where to go: the password never on their command line. */
function at(url: string): { readonly args: readonly string[]; readonly env: NodeJS.ProcessEnv } {
  const { hostname, port, username, password, pathname } = new URL(url);
  const args = ['--host', hostname, '--port', port || '5432', '--username', decodeURIComponent(username), '--dbname', decodeURIComponent(pathname.slice(1))];
  return { args, env: { ...process.env, PGPASSWORD: decodeURIComponent(password) } };
}

/** Waits for a program. @throws with what it complained of */
function ended(name: string, child: ChildProcess): Promise<void> {
  let complaint = '';
  child.stderr?.on('data', (chunk: Buffer) => (complaint = `${complaint}${chunk.toString()}`.slice(-2000)));
  return new Promise((resolve, reject) => {
    child.on('error', reject);
    child.on('exit', (code) => (code === 0 ? resolve() : reject(new Error(`${name} failed: ${complaint.trim()}`))));
  });
}

async function lastMigration(sql: Sql): Promise<string> {
  const [row] = await sql<{ name: string }[]>`select name from schema_migration order by name desc limit 1`;
  if (!row) throw new Error('this database is none of Keen Fit’s');
  return row.name;
}

/** Writes one file with everything in a database, made while people work. */
export async function makeBackup(url: string, file: string, madeAt: string): Promise<void> {
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  const owner = connect(url, { max: 1 });
  const schema = await lastMigration(owner).finally(() => owner.end());
  const { args, env } = at(url);
  const dump = `${file}.dump-part`;
  const whole = `${file}.part`;
  try {
    await ended(
      'pg_dump',
      spawn(join(postgresBinaries(), 'pg_dump'), ['--format=custom', '--no-owner', `--file=${dump}`, ...args], { env, stdio: ['ignore', 'ignore', 'pipe'] }),
    );
    await wrapDump(dump, whole, { madeAt, schema });
    // Written anew it is looked at once more: a full disk must not leave a backup that is none.
    await openBackup(whole);
    renameSync(whole, file);
  } finally {
    for (const left of [dump, whole]) rmSync(left, { force: true });
  }
}

/** Who else is connected: people at work, or jobs. */
async function othersConnected(owner: Sql): Promise<number> {
  const [row] = await owner<{ n: number }[]>`
    select count(*)::int as n from pg_stat_activity
    where datname = current_database() and pid <> pg_backend_pid() and backend_type = 'client backend'`;
  return row?.n ?? 0;
}

export interface Restored {
  readonly wearers: number;
  /** Migrations that brought it forward. */
  readonly applied: number;
  /** Address for the web server and the jobs. */
  readonly appUrl: string;
  readonly madeAt: string;
}

/**
 * Puts a backup in place of everything in a database, all or nothing, whatever version either is of; also on a server where
 * nothing of Keen Fit was before.
 * @throws before anything is replaced, when the file is damaged or from a newer program, or people are working
 */
export async function restoreBackup(url: string, file: string): Promise<Restored> {
  if (!existsSync(file)) throw new Error(`there is no file ${file}`);
  const { start, header } = await openBackup(file);
  const known = readMigrations().map((m) => m.name);
  if (!known.includes(header.schema)) {
    throw new Error(`this backup was made by a newer Keen Fit (its database has ${header.schema}): bring this one up to date first`);
  }
  const owner = connect(url, { max: 1 });
  try {
    const others = await othersConnected(owner);
    if (others > 0) throw new Error(`${others} others are connected to this database: stop the web server and the jobs first`);
    // The grants in the file name it; a new server does not know it yet.
    await owner.unsafe(`do $$ begin if not exists (select from pg_roles where rolname = 'keenfit_app') then create role keenfit_app nologin; end if; end $$`);
    await replaceAll(url, createReadStream(file, { start }));
    const applied = await migrate(owner);
    const [count] = await owner<{ n: number }[]>`select count(*)::int as n from wearer`;
    return { wearers: count?.n ?? 0, applied: applied.length, appUrl: await openAppLogin(owner, url), madeAt: header.madeAt };
  } finally {
    await owner.end();
  }
}

/** In one transaction: everything that is there goes, whatever it is, and everything in the dump comes. */
async function replaceAll(url: string, dump: Readable): Promise<void> {
  const { args, env } = at(url);
  const script = spawn(join(postgresBinaries(), 'pg_restore'), ['--no-owner', '--file=-'], { stdio: ['pipe', 'pipe', 'pipe'] });
  const psql = spawn(join(postgresBinaries(), 'psql'), ['--no-psqlrc', '--quiet', '--single-transaction', '--set=ON_ERROR_STOP=1', ...args], {
    env,
    stdio: ['pipe', 'ignore', 'pipe'],
  });
  // A program that ends early closes its end: what it complained of is said below.
  for (const end of [script.stdin, psql.stdin]) end.on('error', () => undefined);
  psql.stdin.write('set client_min_messages = warning;\ndrop schema public cascade;\ncreate schema public;\n');
  dump.pipe(script.stdin);
  // The program's end comes before the last of what it wrote is read: both are waited for, or the script would be cut off.
  const written = Promise.all([ended('pg_restore', script), pipeline(script.stdout, psql.stdin, { end: false })]);
  const done = ended('psql', psql);
  try {
    await Promise.race([written, done]);
    await written;
  } catch (cause) {
    // Half a dump must not be taken for a whole one.
    psql.kill('SIGKILL');
    script.kill('SIGKILL');
    await Promise.allSettled([written, done]);
    throw cause;
  }
  psql.stdin.end();
  await done;
}
