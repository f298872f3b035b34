import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DEMO_PASSWORD } from '../../demo/load';
import { connect, type Sql } from '../../src/db/client';
import { TEST_NOW } from '../../tests/support/moment';
import { startCluster } from './cluster';
import { ensureDatabase, prepareDatabase } from './prepareDatabase';
import { startSite, type Site } from './site';

/** What may be killed: whole parts of the product, one of several web processes, one connection's process of the database. */
export const VICTIMS = ['web', 'webProcess', 'jobs', 'supplier', 'database', 'databaseProcess'] as const;
export type Victim = (typeof VICTIMS)[number];

const read = (path: string): string => {
  try {
    return readFileSync(path, 'utf8');
  } catch {
    return '';
  }
};
const parentOf = (pid: number): number => Number(/^\S+ \(.*\) \S (\d+)/s.exec(read(`/proc/${pid}/stat`))?.[1] ?? 0);
const childrenOf = (parent: number): number[] =>
  readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number)
    .filter((pid) => parentOf(pid) === parent);
const commandOf = (pid: number): string => read(`/proc/${pid}/cmdline`).replaceAll('\0', ' ');

/** Processes of a part that live now. */
export function processesOf(victim: Victim, dataFolder: string): number[] {
  const ours = childrenOf(process.pid);
  const those = (what: string): number[] => ours.filter((pid) => commandOf(pid).includes(what));
  switch (victim) {
    case 'web':
      return those('webProcesses.ts');
    case 'webProcess':
      return those('webProcesses.ts').flatMap(childrenOf);
    case 'jobs':
      return those('src/jobs/main.ts');
    case 'supplier':
      return those('src/standins/supplier/main.ts');
    case 'database':
      return those(`-D ${dataFolder}`);
    case 'databaseProcess':
      return those(`-D ${dataFolder}`)
        .flatMap(childrenOf)
        .filter((pid) => commandOf(pid).includes(' 127.0.0.1('));
  }
}

interface Press {
  readonly command: string;
  readonly key: string;
  readonly input: object;
}
/** What became of what was pressed. */
export interface Kept {
  readonly kills: number;
  /** Presses that were answered as done. */
  readonly acknowledged: number;
  /** Answered as done, and not there. */
  readonly lost: number;
  /** There more than once: rows, audit lines, orders at the supplier's, the supplier's answers. */
  readonly doubled: number;
  /** Answered otherwise: nothing may be refused only because something was killed. */
  readonly refused: readonly string[];
  /** Sent again, because nobody answered. */
  readonly again: number;
  readonly seconds: number;
}

/** The practice's people at work: each presses one thing after the other, and presses again with the same key until it is answered. */
class Desk {
  readonly done: Press[] = [];
  readonly refused: string[] = [];
  again = 0;
  private cookie = '';

  constructor(
    private readonly url: string,
    private readonly next: () => Press | null,
    private readonly goesOn: () => boolean,
  ) {}

  async work(): Promise<void> {
    while (this.goesOn()) {
      const press = this.next();
      if (press === null) return;
      await this.untilAnswered(press);
    }
  }

  private async untilAnswered(press: Press): Promise<void> {
    for (;;) {
      try {
        if (this.cookie === '') await this.signIn();
        const answer = await this.post(`/api/commands/${press.command}`, press.input, { cookie: this.cookie, 'x-request-key': press.key });
        if (answer.status === 401) this.cookie = '';
        else if (answer.status >= 500) throw new Error(String(answer.status));
        else {
          const said = (await answer.json()) as { readonly ok: boolean; readonly error?: unknown };
          if (said.ok) this.done.push(press);
          else this.refused.push(`${press.command}: ${JSON.stringify(said.error)}`);
          return;
        }
      } catch {
        this.again += 1;
        await new Promise((resolve) => setTimeout(resolve, 150));
      }
    }
  }

  private async signIn(): Promise<void> {
    const answer = await this.post('/api/session', { account: 'asha', password: DEMO_PASSWORD }, {});
    if (!answer.ok) throw new Error('not signed in');
    this.cookie = (answer.headers.get('set-cookie') ?? '').split(';')[0] ?? '';
  }

  private post(path: string, body: object, headers: Readonly<Record<string, string>>): Promise<Response> {
    return fetch(`${this.url}${path}`, {
      method: 'POST',
      headers: { origin: this.url, 'content-type': 'application/json', connection: 'close', ...headers },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(8000),
    });
  }
}

export interface KillingOptions {
  readonly distDir: string;
  /** What is killed, one after the other. */
  readonly victims: readonly Victim[];
  /** Between two kills, ms. */
  readonly everyMs: number;
  /** Orders that are pressed meanwhile, each under a prescription of its own. */
  readonly orders: number;
  /** Presses that must still be answered after the last kill: the work goes on until then. */
  readonly andThen: number;
  readonly say?: (line: string) => void;
}

const DESKS = 4;
const untilTrue = async (what: string, is: () => Promise<boolean> | boolean, seconds: number): Promise<void> => {
  for (let i = 0; i < seconds * 5; i++) {
    if (await Promise.resolve(is()).catch(() => false)) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error(`${what} did not happen within ${seconds} s`);
};

/**
 * The whole product under load, its parts killed with −9 at random; it starts them again by itself. In the end every press that
 * was answered is there once, and what was sent to the supplier is there once.
 * @param prepare makes signed prescriptions, one a visit, to be ordered from
 */
export async function killing(
  options: KillingOptions,
  prepare: (
    owner: Sql,
    appUrl: string,
    count: number,
  ) => Promise<readonly { readonly visitId: string; readonly version: number; readonly prescriptionId: string }[]>,
): Promise<Kept> {
  const say = options.say ?? (() => undefined);
  const folder = mkdtempSync(join(tmpdir(), 'keenfit-kills-'));
  // No disk is cut off here: what PostgreSQL gave to the system is kept by it, and need not reach the disk.
  const cluster = await startCluster(join(folder, 'pg'), { settings: { fsync: 'off' }, keepRunning: true });
  const began = Date.now();
  let site: Site | null = null;
  try {
    await ensureDatabase(cluster.url, 'kills');
    const { appUrl } = await prepareDatabase(cluster.url('kills'), { demoAt: TEST_NOW });
    const owner = connect(cluster.url('kills'), { max: 1 });
    // The supplier's days begin at the same moment: an answer with a day that is past is never believed.
    await owner`update app_clock set offset_seconds = extract(epoch from (${TEST_NOW}::timestamptz - now()))::bigint`;
    const toOrder = [...(await prepare(owner, appUrl, options.orders))];
    await owner.end();
    site = await startSite({
      databaseUrl: appUrl,
      mode: 'test',
      distDir: options.distDir,
      webProcesses: 2,
      supplierFile: join(folder, 'supplier.json'),
      supplierToday: TEST_NOW.slice(0, 10),
      demoPassword: DEMO_PASSWORD,
      keepRunning: true,
    });
    let goesOn = true;
    const next = (): Press => {
      const key = crypto.randomUUID();
      const order = Math.random() < 0.2 ? toOrder.pop() : undefined;
      if (order) return { command: 'placeOrder', key, input: { ...order, requestKey: key, rightPacks: 1, leftPacks: 1, pastExpiryNote: '' } };
      return Math.random() < 0.5
        ? { command: 'addTask', key, input: { kind: 'other', text: key, wearerId: null, dueOn: '2026-12-01', assignedTo: null } }
        : { command: 'createWearer', key, input: { name: `Kept ${key}`, birthDate: '1990-01-01' } };
    };
    const desks = Array.from({ length: DESKS }, () => new Desk(site?.url ?? '', next, () => goesOn));
    const work = Promise.all(desks.map((desk) => desk.work()));
    for (const victim of options.victims) {
      await new Promise((resolve) => setTimeout(resolve, options.everyMs * (0.5 + Math.random())));
      await untilTrue(`a process of ${victim}`, () => processesOf(victim, cluster.dataFolder).length > 0, 60);
      const all = processesOf(victim, cluster.dataFolder);
      const pid = all[Math.floor(Math.random() * all.length)] ?? 0;
      say(`kill −9 ${victim} (${pid})`);
      try {
        process.kill(pid, 'SIGKILL');
      } catch {
        // It ended by itself meanwhile.
      }
    }
    // By the work done and not by the time: a slow machine is no fault of the product.
    const doneSoFar = (): number => desks.reduce((sum, desk) => sum + desk.done.length, 0);
    const atLastKill = doneSoFar();
    await untilTrue(`${options.andThen} presses answered after the last kill`, () => doneSoFar() >= atLastKill + options.andThen, 90);
    goesOn = false;
    await work;
    return await reckon(cluster.url('kills'), site, desks, options.victims.length, began);
  } finally {
    await site?.stop();
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/**
 * Waits for the supplier's answer to every order. The wait between two tries doubles while parts are down, up to minutes: what waits
 * is made due now and then, as the coordinator's press does.
 */
async function allAnswered(owner: Sql): Promise<void> {
  for (let round = 0; ; round++) {
    await owner`update order_dispatch set due_at = '2000-01-01' where done_at is null`;
    const waiting = () => owner<{ attempts: number; last_problem: string | null }[]>`select attempts, last_problem from order_dispatch where done_at is null`;
    const answered = await untilTrue('an answer', async () => (await waiting()).length === 0, 15).then(
      () => true,
      () => false,
    );
    if (answered) return;
    if (round === 8) throw new Error(`no answer to an order: ${JSON.stringify(await waiting())}`);
  }
}

/** Counts what is there, once the jobs have brought all orders to the supplier. */
async function reckon(url: string, site: Site, desks: readonly Desk[], kills: number, began: number): Promise<Kept> {
  const owner = connect(url, { max: 1 });
  try {
    await allAnswered(owner);
    const done = desks.flatMap((desk) => desk.done);
    const keysOf = (command: string): string[] => done.filter((press) => press.command === command).map((press) => press.key);
    let lost = 0;
    let doubled = 0;
    const compare = (acknowledged: readonly string[], rows: readonly { readonly key: string; readonly n: number }[]): void => {
      const there = new Map(rows.map((row) => [row.key, row.n]));
      lost += acknowledged.filter((key) => !there.has(key)).length;
      doubled += rows.filter((row) => row.n > 1).length;
    };
    type Rows = { key: string; n: number }[];
    compare(keysOf('addTask'), await owner<Rows>`select text as key, count(*)::int as n from task where kind = 'other' group by 1`);
    compare(
      keysOf('createWearer'),
      await owner<Rows>`select replace(name collate "C", 'Kept ', '') as key, count(*)::int as n from wearer_identity where name collate "C" like 'Kept %' group by 1`,
    );
    const orders = keysOf('placeOrder');
    compare(orders, await owner<Rows>`select request_key::text as key, count(*)::int as n from lens_order group by 1`);
    compare(
      orders,
      await owner<Rows>`
        select o.request_key::text as key, count(*)::int as n from order_event e join lens_order o on o.id = e.order_id
        where e.state in ('acknowledged', 'backordered') group by 1`,
    );
    const atSupplier = ((await (await fetch(new URL('/orders', site.supplierUrl))).json()) as { readonly orders: readonly { readonly key: string }[] }).orders;
    const ids = await owner<{ id: string; key: string }[]>`select id, request_key::text as key from lens_order`;
    compare(
      orders,
      atSupplier.map(({ key }) => ({ key: ids.find((o) => o.id === key)?.key ?? key, n: atSupplier.filter((o) => o.key === key).length })),
    );
    // One line of the audit for each thing done, acknowledged or not.
    const [audit] = await owner<{ surplus: number }[]>`
      select ((select count(*) from audit_log where action = 'addTask') - (select count(*) from task where kind = 'other'))::int as surplus`;
    doubled += Math.abs(audit?.surplus ?? 0);
    return {
      kills,
      acknowledged: done.length,
      lost,
      doubled,
      refused: desks.flatMap((desk) => desk.refused),
      again: desks.reduce((sum, desk) => sum + desk.again, 0),
      seconds: Math.round((Date.now() - began) / 1000),
    };
  } finally {
    await owner.end();
  }
}
