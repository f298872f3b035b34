import { randomUUID } from 'node:crypto';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { retrySeconds } from '../../src/jobs/deliver';
import { dispatchOne, type DispatchDeps } from '../../src/jobs/dispatchOrders';
import { claimDispatch } from '../../src/db/dispatch';
import { supplierServer, type Fault } from '../../src/standins/supplier/server';
import { newWearer, openWorld, signPair, type World } from './support';

let world: World;
let supplier: Server;
let url: string;
let deps: DispatchDeps;

beforeAll(async () => {
  world = await openWorld();
  supplier = supplierServer({ file: null, slowMs: 800, today: () => '2026-11-24' });
  await new Promise<void>((resolve) => supplier.listen(0, '127.0.0.1', resolve));
  url = `http://127.0.0.1:${(supplier.address() as AddressInfo).port}`;
  deps = { sql: world.db.app, clock: world.deps.clock, supplierUrl: url, timeoutMs: 300 };
});
afterAll(async () => {
  supplier.closeAllConnections();
  await new Promise((resolve) => supplier.close(resolve));
  await world.db.close();
});

const setFault = (fault: Fault): Promise<Response> => fetch(`${url}/fault`, { method: 'PUT', body: JSON.stringify({ fault }) });
const atSupplier = async (orderId: string): Promise<{ seen: number } | undefined> =>
  ((await (await fetch(`${url}/orders`)).json()) as { orders: { key: string; seen: number }[] }).orders.find((o) => o.key === orderId);
const states = async (orderId: string): Promise<string[]> =>
  (await world.db.owner<{ state: string }[]>`select state from order_event where order_id = ${orderId} order by sequence`).map((r) => r.state);
beforeEach(() => setFault('none'));

async function order(): Promise<string> {
  const visitId = await world.visit(await newWearer(world), { right: '-2.00', left: '-2.25' });
  const prescriptionId = await signPair(world, visitId);
  const { orderId } = await world.must('placeOrder', { visitId, version: 3, requestKey: randomUUID(), prescriptionId, rightPacks: 1, leftPacks: 1 });
  return orderId ?? '';
}

describe('an order on its way', () => {
  it('is acknowledged with the supplier’s reference and day', async () => {
    const id = await order();
    expect(await dispatchOne(deps)).toBe(true);
    const [event] = await world.db.owner<
      { supplierReference: string; dueOn: string }[]
    >`select supplier_reference, due_on from order_event where order_id = ${id} and state = 'acknowledged'`;
    expect(event).toMatchObject({ dueOn: '2026-11-29' });
    expect(event?.supplierReference).toMatch(/^MR-/);
    expect(await dispatchOne(deps)).toBe(false);
  });
  it('waits while the supplier is down, says so once, and goes when it is back', async () => {
    const id = await order();
    await setFault('down');
    for (let i = 0; i < 3; i++) {
      await dispatchOne(deps);
      world.move(400);
    }
    expect(await states(id)).toEqual(['placed', 'sendFailed']);
    await setFault('none');
    await dispatchOne(deps);
    expect(await states(id)).toEqual(['placed', 'sendFailed', 'acknowledged']);
    expect((await atSupplier(id))?.seen).toBe(1);
  });
  it('a slow answer that came too late is asked for again under the same key: ordered once', async () => {
    const id = await order();
    await setFault('slow');
    await dispatchOne(deps);
    await setFault('none');
    await new Promise((resolve) => setTimeout(resolve, 900));
    world.move(retrySeconds(0) + 1);
    await dispatchOne(deps);
    expect((await atSupplier(id))?.seen).toBeGreaterThanOrEqual(1);
    expect((await states(id)).filter((s) => s === 'acknowledged')).toHaveLength(1);
  });
  it('a line cut between sending and storing: the supplier took it once, and it is not lost', async () => {
    const id = await order();
    await setFault('lostAnswer');
    await dispatchOne(deps);
    expect((await atSupplier(id))?.seen).toBe(1);
    expect(await states(id)).toEqual(['placed', 'sendFailed']);
    world.move(retrySeconds(0) + 1);
    await dispatchOne(deps);
    expect(await atSupplier(id)).toMatchObject({ seen: 2 });
    expect(await states(id)).toEqual(['placed', 'sendFailed', 'acknowledged']);
  });
  it('a worker that dies after its claim leaves it to the next', async () => {
    const id = await order();
    const now = await world.deps.clock.now();
    await world.db.app.begin((tx) => claimDispatch(tx, now, () => now));
    await dispatchOne(deps);
    expect(await states(id)).toContain('acknowledged');
  });
  it('two workers never hold the same order', async () => {
    const ids = [await order(), await order()];
    await Promise.all([dispatchOne(deps), dispatchOne(deps), dispatchOne(deps)]);
    for (const id of ids) expect((await atSupplier(id))?.seen).toBe(1);
  });
  it('an answer that comes twice is stored once', async () => {
    const id = await order();
    await setFault('duplicate');
    await dispatchOne(deps);
    await world.db.owner`update order_dispatch set done_at = null, due_at = ${await world.deps.clock.now()} where order_id = ${id}`;
    await dispatchOne(deps);
    expect((await states(id)).filter((s) => s === 'acknowledged')).toHaveLength(1);
  });
  it('a backorder is said, with its day', async () => {
    const id = await order();
    await setFault('backorder');
    await dispatchOne(deps);
    expect(await states(id)).toEqual(['placed', 'backordered']);
  });
  it('“try now” makes a waiting order due', async () => {
    const id = await order();
    await setFault('down');
    await dispatchOne(deps);
    await setFault('none');
    expect(await dispatchOne(deps)).toBe(false);
    await world.must('hastenOrder', { orderId: id, visitId: randomUUID() }, world.callers.coordinator);
    expect(await dispatchOne(deps)).toBe(true);
    expect(await states(id)).toContain('acknowledged');
  });
});

describe('the supplier stand-in', () => {
  it('refuses an order without a key or without lines', async () => {
    expect((await fetch(`${url}/orders`, { method: 'POST', body: JSON.stringify({ lines: [{}] }) })).status).toBe(422);
    expect((await fetch(`${url}/orders`, { method: 'POST', headers: { 'idempotency-key': 'k' }, body: '{"lines":[]}' })).status).toBe(422);
    expect((await fetch(`${url}/orders`, { method: 'POST', headers: { 'idempotency-key': 'k' }, body: 'nonsense' })).status).toBe(400);
  });
});

describe('an answer that does not fit the order', () => {
  it.each([
    ['otherOrder', 'otherOrder'],
    ['past', 'duePast'],
    ['far', 'dueFar'],
    ['nonsense', 'notUnderstood'],
    ['long', 'tooLong'],
    ['redirect', 'redirected'],
  ] as const)('%s: kept and shown once, counts as no answer, and the right one is taken when it comes', async (fault, doubt) => {
    const id = await order();
    await setFault(fault);
    for (let i = 0; i < 3; i++) {
      await dispatchOne(deps);
      world.move(400);
    }
    expect(await states(id)).toEqual(['placed', 'doubtful']);
    const [event] = await world.db.owner<{ detail: { problem: string; said: string } }[]>`
      select detail from order_event where order_id = ${id} and state = 'doubtful'`;
    expect(event?.detail.problem).toBe(doubt);
    expect(event?.detail.said.length).toBeLessThanOrEqual(400);
    await setFault('none');
    await dispatchOne(deps);
    expect(await states(id)).toEqual(['placed', 'doubtful', 'acknowledged']);
    expect((await atSupplier(id))?.seen).toBeGreaterThanOrEqual(1);
  });
  it('under a reference that another order has', async () => {
    const [first] = await world.db.owner<{ reference: string }[]>`select supplier_reference as reference from order_event where supplier_reference = 'MR-4101'`;
    expect(first?.reference).toBe('MR-4101');
    const id = await order();
    await setFault('usedReference');
    await dispatchOne(deps);
    expect(await states(id)).toEqual(['placed', 'doubtful']);
    await setFault('none');
    world.move(400);
    await dispatchOne(deps);
    expect(await states(id)).toEqual(['placed', 'doubtful', 'acknowledged']);
  });
});
