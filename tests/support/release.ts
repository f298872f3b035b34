import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { connect } from '../../src/db/client';
import { migrate } from '../../src/db/migrate';
import { createDatabase, type TestDatabase } from './database';

/** The last migration of the last release: `tests/releases` holds its database, with the demo's data and one whole first fit. */
export const LAST_RELEASE = '0014';

/** A database as the last release left it, brought up to date. @returns it, and the migrations that were applied */
export async function openRelease(): Promise<{ readonly db: TestDatabase; readonly applied: readonly string[] }> {
  const db = await createDatabase({ template: 'template0' });
  // What pg_dump tells psql alone is left out; it also turns off the search path of its session, which is given up with it.
  const dump = gunzipSync(readFileSync(join('tests', 'releases', `${LAST_RELEASE}.sql.gz`)))
    .toString('utf8')
    .replace(/^\\.*$/gm, '');
  const restoring = connect(db.ownerUrl, { max: 1 });
  await restoring.unsafe(dump);
  await restoring.end();
  return { db, applied: await migrate(db.owner) };
}
