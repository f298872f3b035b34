import 'server-only';
import { addSeconds, secondsBetween } from '../core';
import { connect } from '../db/client';
import { deleteOldRequests } from '../db/requestKey';
import { clockFor } from '../server/clock';
import { environment } from '../server/environment';
import { log } from '../server/log';
import { answerOne } from './answerSellers';
import { askSuppliers } from './askSuppliers';
import { cancelOne } from './cancelOrders';
import { dispatchOne } from './dispatchOrders';
import { ImportsBeside } from './importsBeside';
import { beginDays, renewStale } from './renewRunways';
import { takeRequests } from './takeRequests';

const env = environment();
const sql = connect(env.databaseUrl, { max: 3, applicationName: 'keenfit-jobs' });
const clock = clockFor(sql, env.mode);
const imports = new ImportsBeside(sql);
let stopping = false;
/** Presses are remembered for so long, s; looked after once an hour. */
const REMEMBERED = 3 * 24 * 3600;
let sweptAt = '';
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => (stopping = true));

/** A seller's system, and each supplier's, is asked every so often, ms. */
const ASK_EVERY_MS = 5000;
let askedSuppliers = 0;
let asked = 0;
let read = 0;
/** Takes what a seller's system asks, and brings it one answer. @returns whether an answer was brought */
async function sellers(): Promise<boolean> {
  if (env.sellerUrl === null) return false;
  const deps = { sql, clock, sellerUrl: env.sellerUrl, timeoutMs: 4000 };
  if (Date.now() - asked > ASK_EVERY_MS) {
    asked = Date.now();
    read = await takeRequests(deps, read);
  }
  return answerOne(deps);
}

let days: ReadonlyMap<string, string> = new Map();
/** Sends an order or a cancellation that is due, and asks what became of earlier ones. @returns whether something was sent */
async function suppliers(): Promise<boolean> {
  if (env.supplierUrl === null) return false;
  const deps = { sql, clock, supplierUrl: env.supplierUrl, timeoutMs: 4000 };
  if (Date.now() - askedSuppliers > ASK_EVERY_MS) {
    askedSuppliers = Date.now();
    await askSuppliers(deps);
  }
  return (await dispatchOne(deps)) || (await cancelOne(deps));
}

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

process.stdout.write('jobs ready\n');
while (!stopping) {
  try {
    const sent = await suppliers();
    const answered = await sellers();
    await imports.look();
    const now = await clock.now();
    if (sweptAt === '' || Math.abs(secondsBetween(sweptAt, now)) > 3600) {
      sweptAt = now;
      await deleteOldRequests(sql, addSeconds(now, -REMEMBERED));
    }
    days = await beginDays({ sql, clock }, days);
    const renewed = (await renewStale({ sql, clock })) > 0;
    if (!sent && !answered && !renewed) await pause(400);
  } catch (cause) {
    log.error({ err: cause }, 'a job failed; trying again');
    await pause(2000);
  }
}
await imports.stop();
await sql.end({ timeout: 2 });
