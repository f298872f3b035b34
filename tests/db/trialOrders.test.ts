import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { dispatchOne } from '../../src/jobs/dispatchOrders';
import { supplierServer } from '../../src/standins/supplier/server';
import type { AwaitedOrder } from '../../src/db/orderDesk';
import { fillDrawer } from '../support/drawer';
import { openWorld, signPair, spec, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
  await fillDrawer(world.db.owner, 0);
}, 60_000);
afterAll(() => world.db.close());

const renny = () => world.callers.coordinator;
const awaited = async (): Promise<readonly AwaitedOrder[]> =>
  ((await world.must('readOrders', {}, renny())) as unknown as { readonly orders: readonly AwaitedOrder[] }).orders;
const counted = async (): Promise<number> => Number((await world.db.owner`select coalesce(sum(count), 0)::int as n from trial_stock`)[0]?.['n']);

/** A visit whose right eye asks for a toric that the drawer lacks; the order for it. */
async function orderFor(record: number, more: object = {}) {
  const visitId = await world.visit(record, { right: '-3.25 -1.75 x 20', left: '-4.50 -1.25 x 165' });
  const right = await spec(world, 'plover-30-toric', -3, -1.75, 20);
  const left = await spec(world, 'plover-30-toric', -4.25, -1.25, 160);
  const input = { visitId, version: 2, requestKey: randomUUID(), right, left, despiteReason: '', ...more };
  return { visitId, input, done: await world.do('orderTrials', input) };
}

describe('trial lenses that the drawer lacks', () => {
  it('are ordered from the visit, once for one press, and go to the supplier as trials', async () => {
    const { visitId, input, done } = await orderFor(1);
    expect(done).toMatchObject({ ok: true });
    expect(await world.do('putOnTrials', { visitId, version: 3, right: input.right, left: null })).toMatchObject({
      error: { fields: [{ code: 'noTrialInDrawer' }] },
    });
    expect(await world.do('orderTrials', input)).toMatchObject({ value: { version: null } });
    expect(await awaited()).toMatchObject([
      { kind: 'trial', wearerName: 'Nessa Quillby', stage: 'placed', lines: [{ eye: 'right', ordered: 1, received: 0 }, { eye: 'left' }] },
    ]);
    const supplier = supplierServer({ file: null, slowMs: 0, today: () => '2026-11-24' });
    await new Promise<void>((ready) => supplier.listen(0, '127.0.0.1', ready));
    const supplierUrl = `http://127.0.0.1:${(supplier.address() as AddressInfo).port}`;
    expect(await dispatchOne({ sql: world.db.app, clock: world.deps.clock, supplierUrl, timeoutMs: 2000 })).toBe(true);
    supplier.close();
    supplier.closeAllConnections();
    expect(await awaited()).toMatchObject([{ stage: 'acknowledged', dueOn: '2026-11-29' }]);
  });
  it('are no order of lenses to wear: nothing counts as worn or as supply because of them', async () => {
    const file = (await world.must('readWearer', { wearerId: await world.wearerId(1) })) as unknown as { readonly orders: readonly unknown[] };
    expect(file.orders).toEqual([]);
  });
  it('come into the drawer, each for its eye; once none is missing, the wearer is called', async () => {
    const [order] = await awaited();
    const came = (eye: 'right' | 'left', lot: string, packs: number) =>
      world.do('recordReceipt', { orderId: order?.orderId, right: null, left: null, [eye]: { packs, lot, expiresOn: '1 Mar 2028', power: null } }, renny());
    const calls = async () => (await world.db.owner`select 1 from task where because = 'trialsCame' and done_at is null`).length;
    expect(await came('right', 'T1', 1)).toMatchObject({ ok: true });
    // One lot has one day: another one is asked about, and taken with the reason.
    const again = { orderId: order?.orderId, left: null, right: { packs: 1, lot: 'T1', expiresOn: '1 Apr 2028', power: null } };
    expect(await world.do('recordReceipt', again, renny())).toMatchObject({ error: { fields: [{ path: ['right', 'expiresOn'], code: 'lotOtherDay' }] } });
    expect(await world.do('recordReceipt', { ...again, despiteReason: 'two prints on one box' }, renny())).toMatchObject({ ok: true });
    expect([await counted(), await calls()]).toEqual([2, 0]);
    // A supplier sends two where one was asked for: both are counted.
    expect(await came('left', 'T2', 2)).toMatchObject({ ok: true });
    expect([await counted(), await calls()]).toEqual([4, 1]);
    expect(await awaited()).toEqual([]);
    const { tasks } = (await world.must('readTasks', {}, renny())) as unknown as { readonly tasks: readonly object[] };
    expect(tasks).toContainEqual(expect.objectContaining({ because: 'trialsCame', wearerName: 'Nessa Quillby', appointmentAt: null }));
    const { visitId = '' } = await world.must('openVisit', { wearerId: await world.wearerId(1), kind: 'refit' });
    await world.must('recordRefraction', { visitId, version: 1, right: '-3.25 -1.75 x 20', left: null, vertexMm: 12 });
    const right = await spec(world, 'plover-30-toric', -3, -1.75, 20);
    await world.must('putOnTrials', { visitId, version: 2, right, left: null });
    expect(await counted()).toBe(3);
  });
  it('are refused where the lens is: not made, left out by an age label, an absolute stop; to somebody without the right', async () => {
    const odd = { ...(await spec(world, 'plover-30-toric', -3, -1.6, 20)) };
    expect((await orderFor(2, { right: odd, left: null })).done).toMatchObject({ ok: false });
    expect(await world.do('orderTrials', (await orderFor(3)).input, renny())).toMatchObject({ error: { kind: 'forbidden' } });
    const { visitId, input } = await orderFor(4);
    await world.must('recordFindings', { visitId, version: 3, right: [{ sign: 'suspected', value: 'cornealInfection' }], left: [] });
    expect(await world.do('orderTrials', { ...input, version: 4, requestKey: randomUUID() })).toMatchObject({ error: { rule: 'absoluteStop' } });
  });
  it('are not handed over from a bag: they go home from the eye', async () => {
    const { visitId, done } = await orderFor(5);
    const orderId = done.ok ? (done.value as unknown as { orderId: string }).orderId : '';
    await world.must('recordReceipt', { orderId, right: { packs: 1, lot: 'T5', expiresOn: '1 Mar 2028', power: null }, left: null }, renny());
    const [receipt] = await world.db.owner<{ id: string }[]>`
      select r.id from order_receipt r join order_line l on l.id = r.order_line_id where l.order_id = ${orderId}`;
    const form = { visitId, version: await world.version(visitId), orderId, receiptIds: [receipt?.id], identityAsked: true, experienceNote: 'x y z' };
    expect(await world.do('handOverBoxes', form, renny())).toMatchObject({ error: { kind: 'notFound', what: 'order' } });
  });
});

describe('what is on its way', () => {
  it('names boxes of supply as well, what came of them, and no order that is done with', async () => {
    const visitId = await world.visit(7, { right: '-2.00', left: '-2.25' });
    const prescriptionId = await signPair(world, visitId);
    const { orderId = '' } = await world.must('placeOrder', { visitId, version: 3, requestKey: randomUUID(), prescriptionId, rightPacks: 2, leftPacks: 1 });
    const box = { packs: 1, lot: 'B1', expiresOn: '1 Mar 2029', power: null };
    await world.must('recordReceipt', { orderId, right: box, left: box }, world.callers.technician);
    const of = async () => (await awaited()).find((o) => o.orderId === orderId);
    expect(await of()).toMatchObject({
      kind: 'supply',
      stage: 'partlyReceived',
      lines: [
        { eye: 'right', ordered: 2, received: 1 },
        { eye: 'left', ordered: 1, received: 1 },
      ],
    });
    await world.must('recordReceipt', { orderId, right: box, left: null }, renny());
    expect(await of()).toBeUndefined();
  });
});
