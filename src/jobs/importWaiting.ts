import 'server-only';
import { connect } from '../db/client';
import { clockFor } from '../server/clock';
import { environment } from '../server/environment';
import { importOne } from './importCatalogue';

// Started by the jobs when a catalogue file waits: it may take its time, and memory of its own, while orders go on.
const env = environment();
const sql = connect(env.databaseUrl, { max: 2, applicationName: 'keenfit-import' });
let stopping = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => (stopping = true));
try {
  while (!stopping && (await importOne({ sql, clock: clockFor(sql, env.mode) })));
} finally {
  await sql.end({ timeout: 2 });
}
