import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { insertMessage } from '../../src/db/message';
import { dispatchOne } from '../../src/jobs/dispatchOrders';
import { sendOne, type Carrier } from '../../src/jobs/sendMessages';
import { SERVICES, type ServiceName } from '../../src/services';
import type { StaffCaller } from '../../src/services/define';
import { perform } from '../../src/services/perform';
import { supplierServer } from '../../src/standins/supplier/server';
import { crashAtEvery } from '../support/crash';
import { openWorld, orderOne, SENTENCES, spec, type World } from './support';

/** Jobs that are killed at every step lose nothing and do nothing twice. */
let world: World;
let supplier: Server;
let carrier: Server;
const carried: string[] = [];
const listen = async (server: Server): Promise<string> => {
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
};
let urls: { readonly supplier: string; readonly carrier: string };

beforeAll(async () => {
  world = await openWorld();
  supplier = supplierServer({ file: null, slowMs: 0, today: () => '2026-11-24' });
  // A carrier takes what comes under one identity once.
  carrier = createServer((request, response) => {
    const key = String(request.headers['idempotency-key']);
    if (!carried.includes(key)) carried.push(key);
    response.end();
  });
  urls = { supplier: await listen(supplier), carrier: await listen(carrier) };
}, 180_000);
afterAll(async () => {
  for (const server of [supplier, carrier]) {
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
  }
  await world.db.close();
});

async function write(): Promise<string> {
  const id = crypto.randomUUID();
  const now = await world.deps.clock.now();
  const wearerId = await world.wearerId(1);
  const message = {
    id,
    practiceId: world.practiceId,
    wearerId,
    kind: 'ready',
    data: { day: '2026-11-27' },
    language: 'en',
    way: 'mail',
    recipient: 'a@b.test',
  } as const;
  await insertMessage(world.db.app, { ...message, writtenAt: now, writtenBy: null, dueAt: now });
  return id;
}

describe('killed at every step', () => {
  it('an order reaches the supplier under one key, and its answer is stored once', { timeout: 180_000 }, async () => {
    const deps = { sql: world.db.app, clock: world.deps.clock, supplierUrl: urls.supplier, timeoutMs: 2000 };
    const steps = await crashAtEvery({
      job: 'dispatchOrders',
      databaseUrl: world.db.appUrl,
      owner: world.db.owner,
      outsideUrl: urls.supplier,
      prepare: () => orderOne(world),
      now: () => world.deps.clock.now(),
      recover: async () => {
        world.move(400);
        while (await dispatchOne(deps));
      },
      check: async (id, diedAt) => {
        const states = await world.db.owner<{ state: string }[]>`select state from order_event where order_id = ${id} order by sequence`;
        expect(
          states.map((s) => s.state).filter((s) => s !== 'sendFailed'),
          `died at ${diedAt}`,
        ).toEqual(['placed', 'acknowledged']);
        const { orders } = (await (await fetch(`${urls.supplier}/orders`)).json()) as { orders: { key: string }[] };
        expect(
          orders.filter((o) => o.key === id),
          `died at ${diedAt}`,
        ).toHaveLength(1);
        const [left] = await world.db.owner<{ n: number }[]>`select count(*)::int as n from order_dispatch where order_id = ${id} and done_at is null`;
        expect(left?.n).toBe(0);
      },
    });
    // Claiming, the lines, the call, its answer, and storing it: fewer would mean that nothing was killed.
    expect(steps).toBeGreaterThan(8);
  });
  it('a message is carried once, and is done with', { timeout: 180_000 }, async () => {
    const carry: Carrier = async (message) => {
      await fetch(urls.carrier, { method: 'POST', headers: { 'idempotency-key': message.id } });
      return { kind: 'answer', answer: null };
    };
    const steps = await crashAtEvery({
      job: 'sendMessages',
      databaseUrl: world.db.appUrl,
      owner: world.db.owner,
      outsideUrl: urls.carrier,
      prepare: write,
      now: () => world.deps.clock.now(),
      recover: async () => {
        world.move(400);
        while (await sendOne({ sql: world.db.app, clock: world.deps.clock }, carry));
      },
      check: async (id, diedAt) => {
        expect(
          carried.filter((key) => key === id),
          `died at ${diedAt}`,
        ).toHaveLength(1);
        const [row] = await world.db.owner<{ outcome: string | null }[]>`select outcome from message where id = ${id}`;
        expect(row?.outcome, `died at ${diedAt}`).toBe('sent');
      },
    });
    expect(steps).toBeGreaterThan(6);
  });
});

describe('a press that dies on the way is done once when it is pressed again', () => {
  const folder = mkdtempSync(join(tmpdir(), 'keenfit-press-'));
  const file = join(folder, 'press.json');
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  let pressed: { name: ServiceName; caller: StaffCaller; input: object; key: string };
  /** What is to be pressed next, under a key of its own. @returns what it is about */
  const write = (name: ServiceName, input: object, about: string): string => {
    pressed = { name, caller: world.asha, input, key: randomUUID() };
    writeFileSync(file, JSON.stringify(pressed));
    return about;
  };
  const again = async (): Promise<void> => {
    const done = (await perform(SERVICES[pressed.name] as never, world.deps, pressed.caller, pressed.input, pressed.key)) as { ok: boolean; error?: unknown };
    expect(done.ok, JSON.stringify(done.error)).toBe(true);
  };
  const toSign = async (visitId: string) => {
    await world.must('recordRefraction', { visitId, version: await world.version(visitId), right: '-2.00', left: '-2.00', vertexMm: 12 });
    const lens = await spec(world, 'turnstone-30', -2, 0, 180, 8.4, 14.2);
    const eye = { mode: 'final', lens, triedLensOnEyeId: null };
    const rest = { expiresOn: '2027-11-20', waitNote: 'x y', daysPerWeek: 7, overrides: SENTENCES };
    return { visitId, version: await world.version(visitId), password: 'plain-sight', right: eye, left: eye, ...rest };
  };
  const once = async (visitId: string, diedAt: number): Promise<void> => {
    const [held] = await world.db.owner<{ signed: number; eyes: number; audited: number }[]>`
      select (select count(*)::int from prescription where visit_id = ${visitId}) as signed,
        (select count(*)::int from prescription_eye e join prescription p on p.id = e.prescription_id where p.visit_id = ${visitId}) as eyes,
        (select count(*)::int from request_done where request_key = ${pressed.key}) as audited`;
    expect(held, `died at ${diedAt}`).toEqual({ signed: 1, eyes: 2, audited: 1 });
  };
  const of = { job: 'press' as const, outsideUrl: file, now: () => world.deps.clock.now(), recover: again };
  const database = () => ({ databaseUrl: world.db.appUrl, owner: world.db.owner });

  it('signing', { timeout: 180_000 }, async () => {
    const prepare = async (): Promise<string> => {
      const { wearerId = '' } = await world.must('createWearer', { name: `Signed ${randomUUID().slice(0, 6)}`, birthDate: '1990-01-02' });
      const { visitId = '' } = await world.must('openVisit', { wearerId, kind: 'firstFit' });
      return write('sign', await toSign(visitId), visitId);
    };
    expect(await crashAtEvery({ ...of, ...database(), prepare, check: once }, { every: 6 })).toBeGreaterThan(8);
  });
  it('renewing: what it supersedes is superseded once', { timeout: 180_000 }, async () => {
    const { wearerId = '' } = await world.must('createWearer', { name: 'Renewed', birthDate: '1990-01-02' });
    const visit = async () => (await world.must('openVisit', { wearerId, kind: 'longFollowUp' })).visitId ?? '';
    await world.must('sign', await toSign(await visit()));
    const check = async (visitId: string, diedAt: number): Promise<void> => {
      await once(visitId, diedAt);
      const [held] = await world.db.owner<{ inForce: number }[]>`
        select count(*)::int as in_force from prescription p where p.wearer_id = ${wearerId} and not exists (select 1 from prescription n where n.supersedes_id = p.id)`;
      expect(held?.inForce, `died at ${diedAt}`).toBe(1);
    };
    const prepare = async (): Promise<string> => {
      const visitId = await visit();
      return write('sign', await toSign(visitId), visitId);
    };
    expect(await crashAtEvery({ ...of, ...database(), prepare, check }, { every: 7 })).toBeGreaterThan(8);
  });
  it('answering a seller', { timeout: 180_000 }, async () => {
    const prepare = async (): Promise<string> => {
      const asked = {
        sellerName: 'Quayside',
        sellerContact: '0555 0199',
        wearerId: null,
        wearerName: 'S',
        receivedOn: '2026-11-24',
        receivedTime: '9:00',
        right: null,
        left: null,
      };
      const { requestId = '' } = await world.must('recordRequest', asked);
      return write('answerRequest', { requestId, seen: 0, answer: 'invalid', reason: 'nobody here' }, requestId);
    };
    const check = async (requestId: string, diedAt: number): Promise<void> => {
      const [held] = await world.db.owner<{ answers: number }[]>`select count(*)::int as answers from request_answer where request_id = ${requestId}`;
      expect(held?.answers, `died at ${diedAt}`).toBe(1);
    };
    expect(await crashAtEvery({ ...of, ...database(), prepare, check }, { every: 4 })).toBeGreaterThan(5);
  });
});

describe('the outbox', () => {
  const deps = () => ({ sql: world.db.app, clock: world.deps.clock });
  it('while the carrier is silent a message waits longer and longer; refused, it is not sent again', async () => {
    const id = await write();
    let asked = 0;
    const silent: Carrier = () => ((asked += 1), Promise.resolve({ kind: 'silent', problem: 'no answer' }));
    expect(await sendOne(deps(), silent)).toBe(true);
    expect(await sendOne(deps(), silent)).toBe(false);
    world.move(3);
    expect(await sendOne(deps(), silent)).toBe(true);
    world.move(3);
    expect(await sendOne(deps(), silent)).toBe(false);
    world.move(2);
    expect(await sendOne(deps(), () => Promise.resolve({ kind: 'refused' }))).toBe(true);
    world.move(4000);
    expect(await sendOne(deps(), silent)).toBe(false);
    expect(asked).toBe(2);
    const [row] = await world.db.owner<{ outcome: string; attempts: number }[]>`select outcome, attempts from message where id = ${id}`;
    expect(row).toEqual({ outcome: 'refused', attempts: 3 });
  });
  it('two workers never hold the same message; what is undone with its reason is not sent', async () => {
    const ids = [await write(), await write()];
    const seen: string[] = [];
    const carry: Carrier = (message) => (seen.push(message.id), Promise.resolve({ kind: 'answer', answer: null }));
    await Promise.all([sendOne(deps(), carry), sendOne(deps(), carry), sendOne(deps(), carry)]);
    expect([...seen].sort()).toEqual([...ids].sort());
    const lost = crypto.randomUUID();
    const now = await world.deps.clock.now();
    const rolledBack = world.db.app.begin(async (tx) => {
      const of = {
        id: lost,
        practiceId: world.practiceId,
        wearerId: await world.wearerId(1),
        kind: 'ready',
        data: {},
        language: 'en',
        way: 'text',
        recipient: '1',
      } as const;
      await insertMessage(tx, { ...of, writtenAt: now, writtenBy: null, dueAt: now });
      throw new Error('refused after all');
    });
    await expect(rolledBack).rejects.toThrow('refused');
    expect(await sendOne(deps(), carry)).toBe(false);
  });
});

describe('pairs of a solution and a material', () => {
  it('come with the library; the newest word holds, and what was said before stays on record', async () => {
    const library = async () =>
      (
        (await world.must('readFamilies', {})) as unknown as {
          library: { carePairs: { material: string; effect: string }[]; careProducts: { productId: string }[] };
        }
      ).library;
    const [product] = (await library()).careProducts;
    const productId = product?.productId;
    const say = (material: string, effect: string) =>
      world.must('recordCarePair', { productId, material, effect, source: 'the maker’s leaflet' }, world.callers.admin);
    const before = (await library()).carePairs.length;
    await say('Samphirol', 'irritates');
    await say('samphirol ', 'avoid');
    expect((await library()).carePairs.filter((p) => p.material.toLowerCase() === 'samphirol')).toMatchObject([{ effect: 'avoid' }]);
    await say('Samphirol', 'none');
    expect((await library()).carePairs).toHaveLength(before);
    const [kept] = await world.db.owner<{ n: number }[]>`select count(*)::int as n from care_pair where practice_id = ${world.practiceId}`;
    expect(kept?.n).toBe(3);
    expect(
      await world.do('recordCarePair', { productId: crypto.randomUUID(), material: 'x', effect: 'avoid', source: 'y' }, world.callers.admin),
    ).toMatchObject({
      error: { kind: 'notFound' },
    });
  });
});
