import 'server-only';
import { connect } from '../db/client';
import { clockFor } from '../server/clock';
import { environment } from '../server/environment';
import { log } from '../server/log';
import { dispatchOne } from './dispatchOrders';
import { importOne } from './importCatalogue';

const env = environment();
const sql = connect(env.databaseUrl, { max: 3, applicationName: 'keenfit-jobs' });
const clock = clockFor(sql, env.mode);
let stopping = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => (stopping = true));

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

process.stdout.write('jobs ready\n');
while (!stopping) {
  try {
    const sent = env.supplierUrl !== null && (await dispatchOne({ sql, clock, supplierUrl: env.supplierUrl, timeoutMs: 4000 }));
    const read = await importOne({ sql, clock });
    if (!sent && !read) await pause(400);
  } catch (cause) {
    log.error({ err: cause }, 'a job failed; trying again');
    await pause(2000);
  }
}
await sql.end({ timeout: 2 });
