import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { askSuppliers } from '../../src/jobs/askSuppliers';
import { cancelOne } from '../../src/jobs/cancelOrders';
import { dispatchOne } from '../../src/jobs/dispatchOrders';
import { SERVICES, type ServiceName } from '../../src/services';
import type { StaffCaller } from '../../src/services/define';
import { perform } from '../../src/services/perform';
import { supplierServer } from '../../src/standins/supplier/server';
import { crashAtEvery } from '../support/crash';
import { stockFaults } from '../support/stockFaults';
import { openWorld, signPair, type World } from './support';

/**
 * Ordering, despatch, cancelling, receiving and handing over, killed on the way: no order is lost or doubled, and stock adds up.
 * Every fourth step here; `npm run bench -- crash` kills at every one.
 */
const EVERY = Number(process.env['KEENFIT_CRASH_EVERY'] ?? 4);
/** Orders of one eye, where asked for; else of both. */
const ONE_EYE = process.env['KEENFIT_CRASH_EYES'] === 'one';
const PACKS = { rightPacks: 1, leftPacks: ONE_EYE ? 0 : 1 };
const LINES = ONE_EYE ? 1 : 2;
let world: World;
let supplier: Server;
let url: string;
let kills = 0;
const folder = mkdtempSync(join(tmpdir(), 'keenfit-supply-'));
const file = join(folder, 'press.json');
beforeAll(async () => {
  world = await openWorld();
  supplier = supplierServer({ file: null, slowMs: 0, today: () => '2026-11-24' });
  await new Promise<void>((resolve) => supplier.listen(0, '127.0.0.1', resolve));
  url = `http://127.0.0.1:${(supplier.address() as AddressInfo).port}`;
}, 180_000);
afterAll(async () => {
  supplier.closeAllConnections();
  await new Promise((resolve) => supplier.close(resolve));
  rmSync(folder, { recursive: true, force: true });
  await world.db.close();
  if (process.env['KEENFIT_CRASH_EVERY']) console.log(`${kills} kills`);
});

const deps = () => ({ sql: world.db.app, clock: world.deps.clock, supplierUrl: url, timeoutMs: 2000 });
let pressed: { name: ServiceName; caller: StaffCaller; input: object; key: string };
const write = (name: ServiceName, input: object, about: string): string => {
  pressed = { name, caller: world.asha, input, key: randomUUID() };
  writeFileSync(file, JSON.stringify(pressed));
  return about;
};
const again = async (): Promise<void> => {
  const done = (await perform(SERVICES[pressed.name] as never, world.deps, pressed.caller, pressed.input, pressed.key)) as { ok: boolean; error?: unknown };
  expect(done.ok, JSON.stringify(done.error)).toBe(true);
};
const base = () => ({ databaseUrl: world.db.appUrl, owner: world.db.owner, now: () => world.deps.clock.now() });
const press = () => ({ ...base(), job: 'press' as const, outsideUrl: file, recover: again });

/** Somebody with a pair signed; what is ordered under it. */
async function signed() {
  const { wearerId = '' } = await world.must('createWearer', { name: `Killed ${randomUUID().slice(0, 8)}`, birthDate: '1990-01-02' });
  const { visitId = '' } = await world.must('openVisit', { wearerId, kind: 'longFollowUp' });
  await world.must('recordRefraction', { visitId, version: 1, right: '-2.00', left: '-2.25', vertexMm: 12 });
  return { wearerId, visitId, prescriptionId: await signPair(world, visitId) };
}
async function ordered() {
  const of = await signed();
  const { orderId = '' } = await world.must('placeOrder', {
    visitId: of.visitId,
    version: 3,
    requestKey: randomUUID(),
    prescriptionId: of.prescriptionId,
    ...PACKS,
  });
  while (await dispatchOne(deps())) await Promise.resolve();
  const [row] = await world.db.owner<{ number: number }[]>`select number from lens_order where id = ${orderId}`;
  return { ...of, orderId, number: row?.number ?? 0 };
}
const box = (lot: string) => ({ lot, expiresOn: '2029-01-31', packs: 1, codes: [] });
const boxes = () => ({ right: box('R'), left: ONE_EYE ? null : box('L') });
const receive = (orderId: string) => world.must('recordReceipt', { orderId, ...boxes() });
const states = async (orderId: string) =>
  (await world.db.owner<{ state: string }[]>`select state from order_event where order_id = ${orderId} order by sequence`).map((r) => r.state);
const count = async (query: ReturnType<World['db']['owner']>): Promise<number> => (await query).length;
const counted = (steps: number): number => {
  const n = Math.ceil(steps / EVERY);
  kills += n;
  return n;
};
const run = { most: 140, every: EVERY };

describe('killed on the way', { timeout: 600_000 }, () => {
  it('a telephone reorder is one order, one visit and one call', async () => {
    const steps = await crashAtEvery(
      {
        ...press(),
        prepare: async () => {
          const { wearerId, visitId, prescriptionId } = await signed();
          await world.must('closeVisit', { visitId, version: await world.version(visitId) });
          const asked = { requestKey: randomUUID(), ...PACKS, noDanger: true, sightSame: true, pastExpiryNote: '', note: '' };
          return write('reorderLenses', { wearerId, prescriptionId, ...asked }, wearerId);
        },
        check: async (wearerId, at) => {
          const { owner } = world.db;
          const held = [
            await count(owner`select 1 from lens_order where wearer_id = ${wearerId}`),
            await count(owner`select 1 from visit where wearer_id = ${wearerId} and kind = 'reorder'`),
            await count(owner`select 1 from reorder_call where wearer_id = ${wearerId}`),
            await count(owner`select 1 from order_dispatch d join lens_order o on o.id = d.order_id where o.wearer_id = ${wearerId}`),
            await count(owner`select 1 from eye_runway where of_wearer_id = ${wearerId} and on_the_way = 1`),
          ];
          expect(held, `died at ${at}`).toEqual([1, 1, 1, 1, LINES]);
        },
      },
      run,
    );
    expect(counted(steps)).toBeGreaterThan(3);
  });
  it('a despatch is taken once, with its boxes, and the next one after it', async () => {
    const steps = await crashAtEvery(
      {
        ...base(),
        job: 'askSuppliers',
        outsideUrl: url,
        prepare: async () => {
          const { orderId, number } = await ordered();
          await fetch(`${url}/harbour/ship`, { method: 'PUT', body: JSON.stringify({ order: number, fault: 'twice' }) });
          return orderId;
        },
        recover: async () => {
          while ((await askSuppliers(deps())) > 0) await Promise.resolve();
        },
        check: async (orderId, at) => {
          expect(await states(orderId), `died at ${at}`).toEqual(['placed', 'acknowledged', 'shipped']);
          const lines = await count(world.db.owner`select 1 from shipment_line s join order_line l on l.id = s.order_line_id where l.order_id = ${orderId}`);
          expect(lines, `died at ${at}`).toBe(LINES);
        },
      },
      run,
    );
    expect(counted(steps)).toBeGreaterThan(3);
  });
  it('a cancellation is asked for until it is answered, and said once', async () => {
    const steps = await crashAtEvery(
      {
        ...base(),
        job: 'cancelOrders',
        outsideUrl: url,
        prepare: async () => {
          const { orderId } = await ordered();
          await world.must('cancelOrder', { orderId, reason: 'no longer wanted' });
          return orderId;
        },
        recover: async () => {
          world.move(400);
          while (await cancelOne(deps())) await Promise.resolve();
        },
        check: async (orderId, at) => expect(await states(orderId), `died at ${at}`).toEqual(['placed', 'acknowledged', 'cancelAsked', 'cancelled']),
      },
      run,
    );
    expect(counted(steps)).toBeGreaterThan(1);
  });
  it('boxes are received once', async () => {
    const steps = await crashAtEvery(
      {
        ...press(),
        prepare: async () => {
          const { orderId } = await ordered();
          return write('recordReceipt', { orderId, ...boxes(), despiteReason: '', relearnReason: '' }, orderId);
        },
        check: async (orderId, at) => {
          const receipts = await count(world.db.owner`select 1 from order_receipt r join order_line l on l.id = r.order_line_id where l.order_id = ${orderId}`);
          const open = await count(world.db.owner`select 1 from order_open where order_id = ${orderId}`);
          expect([receipts, open, await states(orderId)], `died at ${at}`).toEqual([LINES, 0, ['placed', 'acknowledged', 'received']]);
        },
      },
      run,
    );
    expect(counted(steps)).toBeGreaterThan(3);
  });
  it('boxes go home once', async () => {
    const steps = await crashAtEvery(
      {
        ...press(),
        prepare: async () => {
          const { orderId, visitId } = await ordered();
          await receive(orderId);
          const receipts = await world.db.owner<
            { id: string }[]
          >`select r.id from order_receipt r join order_line l on l.id = r.order_line_id where l.order_id = ${orderId}`;
          const of = { orderId, visitId, version: await world.version(visitId), receiptIds: receipts.map((r) => r.id) };
          return write('handOverBoxes', { ...of, identityAsked: true, experienceNote: 'for years' }, orderId);
        },
        check: async (orderId, at) => {
          const home = await count(world.db.owner`select 1 from hand_over h join order_line l on l.id = h.order_line_id where l.order_id = ${orderId}`);
          expect(home, `died at ${at}`).toBe(LINES);
        },
      },
      run,
    );
    expect(counted(steps)).toBeGreaterThan(3);
  });
  it('after all that stock adds up', async () => {
    expect(await count(world.db.owner`select 1 from lens_order`)).toBeGreaterThan(15);
    expect(await stockFaults(world.db.owner)).toEqual([]);
  });
});
