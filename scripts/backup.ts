// npm run backup [-- file]: one file with everything in the database, made while people work.
import { statSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { makeBackup } from './lib/backup';
import { openOwnDatabase } from './lib/ownDatabase';

// Nobody else on this machine may read it.
process.umask(0o077);
const now = new Date().toISOString();
const file = resolve(process.argv[2] ?? join('backups', `keenfit-${now.replace(/[:.]/g, '-')}.backup`));
try {
  const database = await openOwnDatabase();
  try {
    await makeBackup(database.url, file, now);
    console.log(`Backed up to ${file} (${Math.ceil(statSync(file).size / 1024)} kB). It holds people’s health records: keep it locked away.`);
  } finally {
    await database.close();
  }
} catch (cause) {
  console.error(`\nKeen Fit: ${cause instanceof Error ? cause.message : String(cause)}`);
  process.exit(1);
}
