// npm run restore -- file --yes: puts a backup in place of what is in the database, all or nothing.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { connect } from '../src/db/client';
import { migrate } from '../src/db/migrate';
import { openOwnDatabase } from './lib/ownDatabase';
import { postgresBinaries } from './lib/postgresBinaries';

const [file, ...flags] = process.argv.slice(2);
try {
  if (!file || !existsSync(file)) throw new Error('name the backup file: npm run restore -- backups/….dump --yes');
  if (!flags.includes('--yes')) throw new Error('this replaces everything in the database; say so with --yes');
  const database = await openOwnDatabase();
  try {
    const run = spawnSync(
      join(postgresBinaries(), 'pg_restore'),
      ['--clean', '--if-exists', '--no-owner', '--single-transaction', `--dbname=${database.url}`, file],
      { stdio: ['ignore', 'inherit', 'inherit'] },
    );
    if (run.status !== 0) throw new Error('pg_restore failed; its message stands above. The database is as it was before.');
    const owner = connect(database.url, { max: 2 });
    const applied = await migrate(owner);
    const [count] = await owner<{ n: number }[]>`select count(*)::int as n from wearer`;
    await owner.end();
    console.log(`Restored: ${count?.n ?? 0} wearers${applied.length > 0 ? `, brought forward by ${applied.length} migrations` : ''}.`);
  } finally {
    await database.close();
  }
} catch (cause) {
  console.error(`\nKeen Fit: ${cause instanceof Error ? cause.message : String(cause)}`);
  process.exit(1);
}
