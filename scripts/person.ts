// npm run person -- export NUMBER FILE | import FILE | erase NUMBER "why" "who": a person's record leaves, is read back into an empty
// database, or loses who it is. On the owner's DATABASE_URL, or on the demo's own database while it is not running.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { Temporal } from 'temporal-polyfill';
import { connect } from '../src/db/client';
import { openOwnDatabase } from './lib/ownDatabase';
import { eraseRecord, exportRecord, importRecord } from './lib/personJobs';

// Nobody else on this machine may read it.
process.umask(0o077);
const USAGE = 'npm run person -- export NUMBER FILE | import FILE | erase NUMBER "why" "who says so" --yes';
const [what, first = '', second = '', third = '', yes] = process.argv.slice(2);

const number = (): number => {
  if (!/^\d{1,9}$/.test(first)) throw new Error(`name the record by its number. ${USAGE}`);
  return Number(first);
};

async function run(url: string): Promise<void> {
  if (what === 'import') {
    const { wearerId } = await importRecord(url, readFileSync(first, 'utf8'));
    console.log(`Read ${first} in: wearer ${wearerId}.`);
    return;
  }
  const sql = connect(url, { max: 1 });
  try {
    if (what === 'export') {
      if (second === '' || existsSync(second)) throw new Error(second === '' ? `name the file. ${USAGE}` : `${second} is there already`);
      writeFileSync(second, await exportRecord(sql, number()));
      console.log(`Wrote ${second}. It holds somebody’s health record: keep it locked away.`);
    } else if (what === 'erase') {
      if (yes !== '--yes') throw new Error(`this cannot be undone; say so with --yes. ${USAGE}`);
      const now = Temporal.Now.instant().round('millisecond').toString();
      const { pseudonym, keptUntil } = await eraseRecord(sql, { recordNumber: number(), reason: second, by: third, now });
      console.log(
        `Record ${first} is ${pseudonym} now; its pictures are deleted. Clinical facts stay until ${keptUntil}. Backups made before still name the person.`,
      );
    } else throw new Error(USAGE);
  } finally {
    await sql.end();
  }
}

try {
  const database = await openOwnDatabase();
  try {
    await run(database.url);
  } finally {
    await database.close();
  }
} catch (cause) {
  console.error(`\nKeen Fit: ${cause instanceof Error ? cause.message : String(cause)}`);
  process.exitCode = 1;
}
