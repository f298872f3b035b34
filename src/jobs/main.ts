import 'server-only';
import { addSeconds, secondsBetween } from '../core';
import { connect } from '../db/client';
import { deleteOldRequests } from '../db/requestKey';
import { clockFor } from '../server/clock';
import { environment } from '../server/environment';
import { log } from '../server/log';
import { dispatchOne } from './dispatchOrders';
import { ImportsBeside } from './importsBeside';

const env = environment();
const sql = connect(env.databaseUrl, { max: 3, applicationName: 'keenfit-jobs' });
const clock = clockFor(sql, env.mode);
const imports = new ImportsBeside(sql);
let stopping = false;
/** Presses are remembered for so long, s; looked after once an hour. */
const REMEMBERED = 3 * 24 * 3600;
let sweptAt = '';
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => (stopping = true));

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

process.stdout.write('jobs ready\n');
while (!stopping) {
  try {
    const sent = env.supplierUrl !== null && (await dispatchOne({ sql, clock, supplierUrl: env.supplierUrl, timeoutMs: 4000 }));
    await imports.look();
    const now = await clock.now();
    if (sweptAt === '' || Math.abs(secondsBetween(sweptAt, now)) > 3600) {
      sweptAt = now;
      await deleteOldRequests(sql, addSeconds(now, -REMEMBERED));
    }
    if (!sent) await pause(400);
  } catch (cause) {
    log.error({ err: cause }, 'a job failed; trying again');
    await pause(2000);
  }
}
await imports.stop();
await sql.end({ timeout: 2 });
