// npm run backup [-- file]: one file with everything in the database, made while people work.
import { spawnSync } from 'node:child_process';
import { mkdirSync, renameSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { openOwnDatabase } from './lib/ownDatabase';
import { postgresBinaries } from './lib/postgresBinaries';

// Nobody else on this machine may read it.
process.umask(0o077);
const file = resolve(process.argv[2] ?? join('backups', `keenfit-${new Date().toISOString().replace(/[:.]/g, '-')}.dump`));
try {
  const database = await openOwnDatabase();
  try {
    mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
    const half = `${file}.part`;
    const run = spawnSync(join(postgresBinaries(), 'pg_dump'), ['--format=custom', '--no-owner', `--file=${half}`, database.url], {
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    if (run.status !== 0) throw new Error('pg_dump failed; its message stands above. No backup was made.');
    renameSync(half, file);
    console.log(`Backed up to ${file} (${Math.ceil(statSync(file).size / 1024)} kB). It holds people’s health records: keep it locked away.`);
  } finally {
    await database.close();
  }
} catch (cause) {
  console.error(`\nKeen Fit: ${cause instanceof Error ? cause.message : String(cause)}`);
  process.exit(1);
}
