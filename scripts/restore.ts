// npm run restore -- file --yes: puts a backup in place of what is in the database, all or nothing; also on another machine.
import { resolve } from 'node:path';
import { restoreBackup } from './lib/backup';
import { openOwnDatabase } from './lib/ownDatabase';

const [file, ...flags] = process.argv.slice(2);
try {
  if (!file) throw new Error('name the backup file: npm run restore -- backups/….backup --yes');
  if (!flags.includes('--yes')) throw new Error('this replaces everything in the database; say so with --yes');
  const database = await openOwnDatabase();
  try {
    const { wearers, applied, appUrl, madeAt } = await restoreBackup(database.url, resolve(file));
    console.log(`Restored what was backed up ${madeAt}: ${wearers} wearers${applied > 0 ? `, brought forward by ${applied} migrations` : ''}.`);
    if (process.env.DATABASE_URL) {
      console.log('Start the web server and the jobs with this (it holds a secret: keep it out of files that are shared):');
      console.log(`  KEENFIT_DATABASE_URL=${appUrl} npm run serve`);
    }
  } finally {
    await database.close();
  }
} catch (cause) {
  console.error(`\nKeen Fit: ${cause instanceof Error ? cause.message : String(cause)}`);
  process.exit(1);
}
