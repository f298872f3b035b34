import { performance } from 'node:perf_hooks';
import { readdirSync, readFileSync } from 'node:fs';
import { dueWindow } from '../../src/core';
import { connect, type Sql } from '../../src/db/client';
import { countDue, listDue } from '../../src/db/eyeRunway';
import { listAwaitedOrders } from '../../src/db/orderDesk';
import { readRunwayFiles } from '../../src/db/runwayFile';
import { findByBeginning, findByNumber, wordsOf } from '../../src/db/wearerSearch';
import { beginDays, renewStale } from '../../src/jobs/renewRunways';
import { writeReminders } from '../../src/jobs/writeReminders';
import type { Deps } from '../../src/services/define';
import { DEMO_PASSWORD } from '../../demo/load';
import { TEST_NOW, TEST_TODAY } from '../../tests/support/moment';
import { ensureBuild } from './build';
import { startThrowAwayCluster } from './cluster';
import { addOrders } from './manyOrders';
import { addWearers } from './manyWearers';
import { ensureDatabase, prepareDatabase } from './prepareDatabase';
import { startSite } from './site';

/** What one statement looked at. */
interface Looked {
  readonly rows: number;
  readonly pages: number;
  /** The same by index alone. */
  readonly byIndex: number;
  readonly ms: number;
}
interface Plan {
  readonly Plan: { readonly 'Shared Hit Blocks': number; readonly 'Shared Read Blocks': number };
  readonly 'Execution Time': number;
}

const pagesOf = (plan: Plan | undefined): number => (plan?.Plan['Shared Hit Blocks'] ?? 0) + (plan?.Plan['Shared Read Blocks'] ?? 0);

/**
 * What asking something costs: every statement of it explained. In a practice of a thousand a table of a few pages is read whole, which
 * costs less than its index: `byIndex` is what the same costs by index alone, and so what may be compared with a practice of many.
 */
async function lookedAt(url: string, ask: (sql: Sql) => Promise<number>): Promise<Looked & { readonly scans: readonly string[] }> {
  const sent: { text: string; parameters: unknown[] }[] = [];
  const sql = connect(url, { max: 1, onStatement: (text, parameters) => sent.push({ text, parameters }) });
  await ask(sql);
  sent.length = 0;
  const rows = await ask(sql);
  let [pages, ms, byIndex] = [0, 0, 0];
  const scans = new Set<string>();
  for (const { text, parameters } of [...sent]) {
    if (!/^\s*(select|with)/i.test(text) || /advisory/.test(text)) continue;
    const [row] = await sql.unsafe<{ 'QUERY PLAN': [Plan] }[]>(`explain (analyze, buffers, format json) ${text}`, parameters as never[]);
    const plan = Object.values(row ?? {})[0]?.[0];
    pages += pagesOf(plan);
    const indexed = await sql.begin(async (tx) => {
      await tx`set local enable_seqscan = off`;
      await tx`set local enable_hashjoin = off`;
      return tx.unsafe<{ 'QUERY PLAN': [Plan] }[]>(`explain (analyze, buffers, format json) ${text}`, parameters as never[]);
    });
    byIndex += pagesOf(Object.values(indexed[0] ?? {})[0]?.[0]);
    ms += plan?.['Execution Time'] ?? 0;
    const walk = (node: Record<string, unknown>): void => {
      if (node['Node Type'] === 'Seq Scan') scans.add(String(node['Relation Name']));
      for (const child of (node['Plans'] as Record<string, unknown>[] | undefined) ?? []) walk(child);
    };
    if (plan) walk(plan.Plan);
  }
  await sql.end();
  return { rows, pages, ms, byIndex, scans: [...scans] };
}

const memoryOf = (pid: number): number => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
/** The web server that this process started. */
function webServerOf(): number {
  const found = readdirSync('/proc').filter((name) => {
    if (!/^\d+$/.test(name)) return false;
    try {
      const parent = /^\S+ \(.*\) \S (\d+)/s.exec(readFileSync(`/proc/${name}/stat`, 'utf8'))?.[1];
      return Number(parent) === process.pid && /next/.test(readFileSync(`/proc/${name}/cmdline`, 'utf8'));
    } catch {
      return false;
    }
  });
  if (!found[0]) throw new Error('no web server');
  return Number(found[0]);
}
const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

const MANY = 100_000;

/** One practice of so many wearers: filled, reckoned, and asked. */
async function measured(wearers: number): Promise<Readonly<Record<string, Looked>> & { readonly page: Looked }> {
  const cluster = await startThrowAwayCluster();
  try {
    await ensureDatabase((name) => cluster.url(name), 'bench');
    const { appUrl } = await prepareDatabase(cluster.url('bench'), { demoAt: TEST_NOW });
    const owner = connect(cluster.url('bench'), { max: 1 });
    const app = connect(appUrl, { max: 2 });
    const clock = { now: () => Promise.resolve(TEST_NOW) };
    const deps: Deps = { sql: app, side: app, clock, mode: 'test' };
    const [practice] = await owner<{ id: string }[]>`select id from practice`;
    const practiceId = practice?.id ?? '';
    await addWearers(owner, practiceId, wearers, TEST_NOW);
    await addOrders(owner, appUrl, deps, { from: 100_001, today: TEST_TODAY });
    const [size] = await owner<{ lines: number }[]>`select count(*)::int as lines from order_line`;
    console.log(`\n${wearers.toLocaleString('en')} wearers, ${(size?.lines ?? 0).toLocaleString('en')} order lines`);
    const begun = performance.now();
    let reckoned = 0;
    for (let n = 1; n > 0;) reckoned += n = await renewStale({ sql: app, clock });
    const [rows] = await owner<{ n: number; due: number }[]>`
      select count(*)::int as n, (count(distinct of_wearer_id) filter (where due_on between ${TEST_TODAY}::date - 180 and ${TEST_TODAY}::date + 14))::int as due from eye_runway`;
    console.log(
      `  runways of ${reckoned} wearers reckoned anew in ${((performance.now() - begun) / 1000).toFixed(0)} s; ${rows?.n ?? 0} rows, ${rows?.due ?? 0} wearers due`,
    );
    await owner`vacuum analyze`;
    const night = performance.now();
    await beginDays({ sql: app, clock: { now: () => Promise.resolve('2026-11-25T08:00:00.000Z') } }, new Map());
    let again = 0;
    for (let n = 1; n > 0;) again += n = await renewStale({ sql: app, clock: { now: () => Promise.resolve('2026-11-25T08:00:00.000Z') } });
    console.log(`  a night: ${again} wearers whose day changes something, with the day’s reminders, in ${((performance.now() - night) / 1000).toFixed(1)} s`);
    await owner`delete from message`;
    const reminders = performance.now();
    const written = await writeReminders(app, practiceId, TEST_NOW);
    console.log(`  ${written.reorders} reminders of a day written in ${((performance.now() - reminders) / 1000).toFixed(2)} s`);
    await owner`vacuum analyze`;
    const window = dueWindow(TEST_TODAY);
    const [some] = await owner<{ id: string }[]>`select id from wearer where record_number = ${100_001 + Math.floor(wearers / 2)}`;
    const words = await wordsOf(owner, 'ce');
    const looked = {
      'the due list, a page of 40': await lookedAt(
        appUrl,
        async (sql) => (await listDue(sql, practiceId, { ...window, after: null, most: 41, now: TEST_NOW })).length,
      ),
      'how many are due': await lookedAt(appUrl, (sql) => countDue(sql, practiceId, { ...window, most: 1000 })),
      'a wearer by number': await lookedAt(appUrl, async (sql) => (await findByNumber(sql, practiceId, 100_001 + Math.floor(wearers / 2))).length),
      'a wearer by two letters': await lookedAt(appUrl, async (sql) => (await findByBeginning(sql, practiceId, words, 20)).length),
      'a wearer’s runway, from the facts': await lookedAt(
        appUrl,
        async (sql) => (await readRunwayFiles(sql, practiceId, [some?.id ?? ''], TEST_TODAY)).files.length,
      ),
      'orders on their way': await lookedAt(appUrl, async (sql) => (await listAwaitedOrders(sql, practiceId)).length),
    };
    for (const [what, { rows: found, pages, byIndex, ms, scans }] of Object.entries(looked))
      console.log(
        `  ${what.padEnd(36)} ${String(found).padStart(5)} rows, ${String(pages).padStart(6)} pages (${(pages / Math.max(1, found)).toFixed(1)} a row; by index alone ${(byIndex / Math.max(1, found)).toFixed(1)}), ${ms.toFixed(1)} ms${scans.length > 0 ? `, whole tables read: ${scans.join(', ')}` : ''}`,
      );
    const page = await pageOf(appUrl);
    await app.end();
    await owner.end();
    return { ...looked, page };
  } finally {
    await cluster.stop();
  }
}

/** How the page of those due answers, and what the web server grows by. */
async function pageOf(databaseUrl: string): Promise<Looked> {
  const site = await startSite({ databaseUrl, mode: 'test', distDir: '.next', demoPassword: DEMO_PASSWORD, supplierToday: TEST_TODAY });
  try {
    const session = await fetch(`${site.url}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: site.url },
      body: JSON.stringify({ account: 'renny', password: DEMO_PASSWORD }),
    });
    const cookie = session.headers
      .getSetCookie()
      .map((c) => c.split(';')[0])
      .join('; ');
    const get = async (): Promise<number> => {
      const start = performance.now();
      const text = await (await fetch(`${site.url}/reorders`, { headers: { cookie } })).text();
      if (!text.includes('data-testid="due"')) throw new Error('nobody is due on the page');
      return performance.now() - start;
    };
    for (let i = 0; i < 5; i++) await get();
    const pid = webServerOf();
    const idle = memoryOf(pid);
    const times: number[] = [];
    for (let i = 0; i < 40; i++) times.push(await get());
    const grown = memoryOf(pid) - idle;
    console.log(`  the page of those due: ${median(times).toFixed(0)} ms, median of 40; the web server grew by ${grown.toFixed(0)} MB meanwhile`);
    return { rows: 40, pages: 0, byIndex: 0, ms: median(times) };
  } finally {
    await site.stop();
  }
}

/** Due list, telephone search and a wearer's runway in a practice of many, beside the same in one of a thousand. */
export async function benchSupply(): Promise<void> {
  await ensureBuild('.next');
  const few = await measured(1000);
  const many = await measured(MANY);
  console.log('\nPages looked at for a row, and time, of 100,000 beside 1,000 wearers:');
  for (const what of Object.keys(many)) {
    const [a, b] = [few[what], many[what]];
    if (!a || !b) continue;
    const each = (l: Looked): number => l.pages / Math.max(1, l.rows);
    const indexed = (l: Looked): number => l.byIndex / Math.max(1, l.rows);
    console.log(
      `  ${what.padEnd(36)} ${a.pages > 0 ? `${(each(b) / each(a)).toFixed(2)} × the pages, ${(indexed(b) / indexed(a)).toFixed(2)} × by index alone, ` : ''}${(b.ms / a.ms).toFixed(2)} × the time`,
    );
  }
}
