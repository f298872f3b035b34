import { randomUUID } from 'node:crypto';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { bagCode, stageOf, type Order, type OrderStage } from '../../src/core';
import { askSuppliers } from '../../src/jobs/askSuppliers';
import { cancelOne } from '../../src/jobs/cancelOrders';
import { dispatchOne, type DispatchDeps } from '../../src/jobs/dispatchOrders';
import { findSupplierSecret } from '../../src/db/supplier';
import { supplierOrder } from '../../src/schema/supplierMessage';
import type { BagSaid } from '../../src/services/order/bag';
import { receiveMessage } from '../../src/services/supplier/receiveMessage';
import { signatureOf } from '../../src/services/supplier/signature';
import { supplierServer } from '../../src/standins/supplier/server';
import { newWearer, openNeighbour, openWorld, signPair, type World } from './support';

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
}, 60_000);
afterAll(async () => {
  supplier.closeAllConnections();
  await new Promise((resolve) => supplier.close(resolve));
  await world.db.close();
});
const control = (path: string, body: object) => fetch(`${url}/${path}`, { method: 'PUT', body: JSON.stringify(body) });
beforeEach(() => control('fault', { fault: 'none' }));

const desk = () => world.callers.coordinator;
interface Placed {
  readonly orderId: string;
  readonly number: number;
  readonly visitId: string;
}
const read = async (orderId: string) => ((await world.must('readOrder', { orderId }, desk())) as unknown as { order: Order }).order;
const stage = async (orderId: string): Promise<OrderStage> => stageOf(await read(orderId));
/** An order of two boxes an eye, which the supplier has. */
async function placed(packs = 2, sent = true): Promise<Placed> {
  const visitId = await world.visit(await newWearer(world), { right: '-2.00', left: '-2.25' });
  const prescriptionId = await signPair(world, visitId);
  const { orderId = '' } = await world.must('placeOrder', {
    visitId,
    version: 3,
    requestKey: randomUUID(),
    prescriptionId,
    rightPacks: packs,
    leftPacks: packs,
  });
  if (sent) while (await dispatchOne(deps)) await Promise.resolve();
  return { orderId, visitId, number: (await read(orderId)).number };
}
const ship = (number: number, more: object = {}) => control('harbour/ship', { order: number, ...more });
const box = (lot: string, packs: number) => ({ lot, expiresOn: '2029-01-31', packs, codes: [] });
const receive = (orderId: string, right: number, left: number) =>
  world.must('recordReceipt', { orderId, right: right ? box('A1', right) : null, left: left ? box('B1', left) : null }, desk());

describe('what a supplier says of an order', () => {
  it('the order is sent in the published format, to the supplier of the maker', async () => {
    const { orderId } = await placed();
    const [order] = await world.db.owner`select s.name from lens_order o join supplier s on s.id = o.supplier_id where o.id = ${orderId}`;
    expect(order).toEqual({ name: 'Harbour Optical Supply' });
    const { orders } = (await (await fetch(`${url}/orders`)).json()) as { orders: { key: string; at: string }[] };
    expect(orders.find((o) => o.key === orderId)).toMatchObject({ at: 'harbour' });
    expect(supplierOrder.safeParse({ version: 1, number: 1, kind: 'supply', deliverTo: 'practice', deliveryAddress: null, lines: [] }).success).toBe(false);
  });
  it('shipped in two parts, received in two parts, handed over', async () => {
    const { orderId, number } = await placed();
    expect(await stage(orderId)).toBe('acknowledged');
    await ship(number, { packs: { right: 1, left: 1 } });
    expect(await askSuppliers(deps)).toBe(1);
    expect(await stage(orderId)).toBe('partlyShipped');
    expect(await askSuppliers(deps)).toBe(0);
    await receive(orderId, 1, 1);
    expect(await stage(orderId)).toBe('partlyReceived');
    await ship(number);
    await askSuppliers(deps);
    expect((await read(orderId)).shipped.map((s) => [s.packs, s.faults])).toEqual([
      [1, []],
      [1, []],
      [1, []],
      [1, []],
    ]);
    await receive(orderId, 1, 1);
    expect(await stage(orderId)).toBe('received');
    const { orders } = (await world.must('readOrders', {}, desk())) as unknown as { orders: { orderId: string }[] };
    expect(orders.map((o) => o.orderId)).not.toContain(orderId);
  });
  it('lens and code announced together teach the code: the box is known before one was ever read here; a wrong lens teaches none', async () => {
    const codes = () => world.db.owner<{ gtin: string; lensId: string; learnedBy: string | null }[]>`select gtin, lens_id, learned_by from package_code`;
    const wrong = await placed();
    const before = await codes();
    await ship(wrong.number, { fault: 'wrongLens' });
    await askSuppliers(deps);
    expect(await codes()).toEqual(before);
    const right = await placed();
    await ship(right.number);
    await askSuppliers(deps);
    const { lines, shipped } = await read(right.orderId);
    const learned = await codes();
    for (const line of lines) {
      const code = learned.find((c) => c.lensId === line.lensId);
      expect(code).toMatchObject({ learnedBy: null });
      expect(await world.must('readBox', { orderId: right.orderId, gtin: code?.gtin ?? '' }, desk())).toMatchObject({ eyes: [line.eye] });
    }
    expect(shipped).toHaveLength(2);
  });
  it('told twice, or the parcel before its despatch: each once, and the order stands where its boxes are', async () => {
    const twice = await placed();
    await ship(twice.number, { fault: 'twice' });
    await askSuppliers(deps);
    const order = await read(twice.orderId);
    expect(order.shipped).toHaveLength(2);
    expect(order.events.filter((e) => e.state === 'shipped')).toHaveLength(1);
    const odd = await placed();
    await ship(odd.number, { fault: 'outOfOrder' });
    await receive(odd.orderId, 2, 2);
    await askSuppliers(deps);
    expect((await read(odd.orderId)).events.map((e) => e.state)).toEqual(['placed', 'acknowledged', 'received', 'delivered', 'shipped']);
    expect(await stage(odd.orderId)).toBe('received');
  });
  it('a wrong lens, one that ends too soon, one eye missing: seen before the parcel is opened, and claimed', async () => {
    const wrong = await placed();
    await ship(wrong.number, { fault: 'wrongLens' });
    const short = await placed();
    await ship(short.number, { fault: 'shortDated' });
    const missing = await placed();
    await ship(missing.number, { fault: 'oneEyeMissing' });
    expect(await askSuppliers(deps)).toBe(3);
    expect((await read(wrong.orderId)).shipped.map((s) => s.faults)).toEqual([['wrongLens'], ['wrongLens']]);
    expect((await read(short.orderId)).shipped.map((s) => s.faults)).toEqual([['shortDated'], ['shortDated']]);
    expect(await stage(missing.orderId)).toBe('partlyShipped');
    const [line] = (await read(wrong.orderId)).lines;
    const claim = (packs: number) =>
      world.do('openClaim', { orderId: wrong.orderId, orderLineId: line?.id, kind: 'wrong', packs, note: 'a quarter off' }, desk());
    expect(await claim(3)).toMatchObject({ error: { fields: [{ path: ['packs'], code: 'claimTooMany', data: { most: 2 } }] } });
    const opened = await claim(2);
    if (!opened.ok) throw new Error('claim');
    expect(await claim(1)).toMatchObject({ error: { fields: [{ data: { most: 0 } }] } });
    const claimId = (opened.value as { claimId?: string }).claimId ?? '';
    await world.must('stepClaim', { claimId, step: 'told', note: '' }, desk());
    await world.must('stepClaim', { claimId, step: 'replaced', note: '' }, desk());
    expect(await world.do('stepClaim', { claimId, step: 'credited', note: '' }, desk())).toMatchObject({ error: { rule: 'claimEnded' } });
    expect((await read(wrong.orderId)).claims).toMatchObject([{ kind: 'wrong', packs: 2, step: 'replaced' }]);
  });
  it('one supplier that is down does not hold up the other', async () => {
    await control('harbour/fault', { fault: 'down' });
    const { orderId, number } = await placed();
    expect((await read(orderId)).events.map((e) => e.state)).toEqual(['placed', 'sendFailed']);
    const [saltern] = await world.db.owner<{ id: string }[]>`select id from supplier where name = 'Saltern Direct'`;
    await world.db.owner`update lens_order set supplier_id = ${saltern?.id ?? ''} where id = ${orderId}`;
    await world.db.owner`update order_dispatch set due_at = '2000-01-01' where order_id = ${orderId}`;
    await dispatchOne(deps);
    expect(await stage(orderId)).toBe('acknowledged');
    await control('saltern/ship', { order: number });
    expect(await askSuppliers(deps)).toBe(1);
    await control('harbour/fault', { fault: 'none' });
  });
});

describe('a message that a supplier calls with', () => {
  const secretOf = async () => {
    const [row] = await world.db.owner<{ id: string }[]>`select id from supplier where name = 'Harbour Optical Supply' and practice_id = ${world.practiceId}`;
    const supplierId = row?.id ?? '';
    const known = await findSupplierSecret(world.db.app, supplierId);
    if (known) return { supplierId, secret: known.secret };
    const { secret = '' } = await world.must('renewSupplierSecret', { supplierId }, world.callers.admin);
    return { supplierId, secret: String(secret) };
  };
  const now = 1_790_000_000;
  const call = async (body: string, change: { timestamp?: string; secret?: string; supplierId?: string } = {}) => {
    const { supplierId, secret } = await secretOf();
    const timestamp = change.timestamp ?? String(now);
    const signature = signatureOf(change.secret ?? secret, timestamp, body);
    return receiveMessage({ sql: world.db.app, clock: world.deps.clock }, change.supplierId ?? supplierId, { timestamp, signature, body }, now);
  };
  const message = (order: number, change: object = {}) =>
    JSON.stringify({ version: 1, id: `m-${randomUUID()}`, kind: 'delayed', order, reference: 'MR-1', expectedOn: '2026-12-20', ...change });
  it('is taken once, if it is signed by that supplier a moment ago', async () => {
    const { orderId, number } = await placed();
    const body = message(number);
    expect(await call(body, { secret: 'x'.repeat(64) })).toEqual({ kind: 'unsigned' });
    expect(await call(body, { timestamp: String(now - 301) })).toEqual({ kind: 'unsigned' });
    expect(await call(body, { supplierId: randomUUID() })).toEqual({ kind: 'unsigned' });
    expect(await call(body, { supplierId: "1' or '1" })).toEqual({ kind: 'unsigned' });
    expect(await call(body)).toEqual({ kind: 'taken' });
    expect(await call(body)).toEqual({ kind: 'known' });
    expect((await read(orderId)).events.at(-1)).toMatchObject({ state: 'delayed', dueOn: '2026-12-20' });
  });
  it('is signed by HMAC-SHA-256 over its moment and its body, as any other program reckons it', async () => {
    const bytes = (text: string) => new TextEncoder().encode(text);
    const key = await crypto.subtle.importKey('raw', bytes('Jefe'), { name: 'HMAC', hash: 'SHA-256' }, false, ['sign']);
    const signed = await crypto.subtle.sign('HMAC', key, bytes('1790000000.{"a":1}'));
    expect(signatureOf('Jefe', '1790000000', '{"a":1}')).toBe(Buffer.from(signed).toString('hex'));
  });
  it('of no order here, of an eye not ordered, of a day to come, of no sense: refused with why, and nothing is changed', async () => {
    const { orderId, number } = await placed();
    const line = (eye: string, packs = 1) => ({ eye, packs, lens: null, gtin: null, lot: null, expiresOn: null });
    const shipped = { kind: 'shipped', shippedOn: '2026-11-24', expectedOn: '2026-11-26' };
    expect(await call(message(99_999))).toEqual({ kind: 'refused', why: 'orderUnknown' });
    expect(await call(message(number, { ...shipped, shippedOn: '2026-11-30', expectedOn: '2026-12-01', lines: [line('right')] }))).toEqual({
      kind: 'refused',
      why: 'dayImpossible',
    });
    expect(await call(message(number, { ...shipped, expectedOn: undefined, lines: [line('right')] }))).toMatchObject({
      kind: 'notUnderstood',
      path: 'expectedOn',
    });
    expect(await call(message(number, { ...shipped, lines: [line('third')] }))).toMatchObject({ kind: 'notUnderstood' });
    expect(await call('{')).toMatchObject({ kind: 'notUnderstood' });
    expect(await call(message(number, { id: 'a\u0000b' }))).toMatchObject({ kind: 'notUnderstood' });
    expect((await read(orderId)).events.map((e) => e.state)).toEqual(['placed', 'acknowledged']);
    // More than was ordered is taken, and said.
    expect(await call(message(number, { ...shipped, lines: [line('right', 3)] }))).toEqual({ kind: 'taken' });
    expect((await read(orderId)).shipped).toMatchObject([{ packs: 3, faults: ['tooMany'] }]);
  });
  it('another practice’s supplier has no say here', async () => {
    const { number } = await placed();
    const neighbour = await openNeighbour(world);
    const [theirs] = await world.db.owner<{ id: string }[]>`select id from supplier where practice_id = ${neighbour.practiceId} limit 1`;
    await world.db
      .owner`insert into supplier_secret (supplier_id, practice_id, secret, made_at) values (${theirs?.id ?? ''}, ${neighbour.practiceId}, ${'s'.repeat(64)}, now())`;
    const said = await call(message(number), { supplierId: theirs?.id ?? '', secret: 's'.repeat(64) });
    expect(said).toEqual({ kind: 'refused', why: 'orderUnknown' });
  });
});

describe('a parcel sent straight to the wearer', () => {
  it('is delivered, unseen; the wearer is asked, and what they say counts', async () => {
    await world.db.owner`update supplier set to_wearers = true where practice_id = ${world.practiceId}`;
    const record = await newWearer(world);
    const wearerId = await world.wearerId(record);
    await world.must('chooseContact', { wearerId, way: 'text', recipient: '555 0123' }, desk());
    const visitId = await world.visit(record, { right: '-2.00', left: '-2.25' });
    const prescriptionId = await signPair(world, visitId);
    await world.must('closeVisit', { visitId, version: await world.version(visitId) });
    const asked = { requestKey: randomUUID(), rightPacks: 1, leftPacks: 1, noDanger: true, sightSame: true, pastExpiryNote: '', note: '' };
    const { orderId = '' } = await world.must('reorderLenses', { wearerId, prescriptionId, ...asked, deliveryAddress: '4 Quay Street, Saltmarsh' }, desk());
    while (await dispatchOne(deps)) await Promise.resolve();
    await ship((await read(orderId)).number);
    await askSuppliers(deps);
    expect(await stage(orderId)).toBe('delivered');
    const { waiting } = (await world.must('readOutbox', {}, desk())) as unknown as { waiting: { wearerId: string; data: { kind: string } }[] };
    expect(waiting.filter((m) => m.wearerId === wearerId).map((m) => m.data.kind)).toEqual(['parcelAsked']);
    const held = async () =>
      (await world.db.owner<{ inHandUntil: string | null }[]>`select in_hand_until from eye_runway where of_wearer_id = ${wearerId}`).map((r) => r.inHandUntil);
    expect(await held()).toEqual([null, null]);
    await world.must('recordArrived', { orderId, arrived: true }, desk());
    expect(await stage(orderId)).toBe('arrived');
    expect((await held()).every((d) => d !== null)).toBe(true);
    const { orderId: here } = await placed(1);
    expect(await world.do('recordArrived', { orderId: here, arrived: true }, desk())).toMatchObject({ error: { rule: 'notSentToWearer' } });
  });
});

describe('what is given up', () => {
  it('an order that was not sent yet is cancelled at once, and never sent', async () => {
    const { orderId } = await placed(1, false);
    expect(await world.must('cancelOrder', { orderId, reason: 'wears glasses now' }, desk())).toEqual({ cancelled: true });
    expect(await dispatchOne(deps)).toBe(false);
    expect(await stage(orderId)).toBe('cancelled');
    expect(await world.do('recordReceipt', { orderId, right: box('A1', 1), left: null }, desk())).toMatchObject({ error: { rule: 'orderCancelled' } });
    expect(await world.do('cancelOrder', { orderId, reason: 'again' }, desk())).toMatchObject({ error: { rule: 'orderNotAwaited' } });
  });
  it('of one that was sent the supplier is asked, however often it is down', async () => {
    const { orderId } = await placed(1);
    await control('fault', { fault: 'down' });
    expect(await world.must('cancelOrder', { orderId, reason: 'wears glasses now' }, desk())).toEqual({ cancelled: false });
    await cancelOne(deps);
    expect(await stage(orderId)).toBe('cancelAsked');
    await control('fault', { fault: 'none' });
    world.move(400);
    expect(await cancelOne(deps)).toBe(true);
    expect(await cancelOne(deps)).toBe(false);
    expect(await stage(orderId)).toBe('cancelled');
  });
  it('of one that has not reached the supplier yet, once it has: never a refusal of what is sent afterwards', async () => {
    await control('fault', { fault: 'down' });
    const { orderId } = await placed(1);
    await world.must('cancelOrder', { orderId, reason: 'wears glasses now' }, desk());
    await control('fault', { fault: 'none' });
    expect(await cancelOne(deps)).toBe(false);
    world.move(400);
    while (await dispatchOne(deps)) await Promise.resolve();
    while (await cancelOne(deps)) await Promise.resolve();
    expect((await read(orderId)).events.map((e) => e.state)).toEqual(['placed', 'sendFailed', 'cancelAsked', 'acknowledged', 'cancelled']);
  });
  it('one on the road is not, and comes', async () => {
    const { orderId, number } = await placed(1);
    await ship(number);
    await askSuppliers(deps);
    await world.must('cancelOrder', { orderId, reason: 'wears glasses now' }, desk());
    await cancelOne(deps);
    expect((await read(orderId)).events.at(-1)).toMatchObject({ state: 'cancelRefused' });
    await receive(orderId, 1, 1);
    expect(await stage(orderId)).toBe('received');
  });
});

describe('suppliers', () => {
  const form = {
    id: null,
    version: 0,
    name: 'Spindrift',
    makers: ['Spindrift Optics'],
    endpoint: null,
    telephone: '555 0199',
    cutOff: '12:00',
    minimumMinor: 0,
    toWearers: false,
    ended: false,
  };
  it('are kept by an admin alone, each once by name, and changed by whoever read the newest', async () => {
    expect(await world.do('saveSupplier', form, desk())).toMatchObject({ error: { kind: 'forbidden' } });
    expect(await world.do('saveSupplier', { ...form, telephone: '' }, world.callers.admin)).toMatchObject({
      error: { fields: [{ path: ['telephone'], code: 'supplierWay' }] },
    });
    expect(await world.do('saveSupplier', { ...form, endpoint: 'http://user:pw@x' }, world.callers.admin)).toMatchObject({
      error: { fields: [{ path: ['endpoint'], code: 'endpointWrong' }] },
    });
    const { supplierId } = await world.must('saveSupplier', form, world.callers.admin);
    expect(await world.do('saveSupplier', { ...form, name: 'SPINDRIFT' }, world.callers.admin)).toMatchObject({
      error: { fields: [{ path: ['name'], code: 'supplierNameTaken' }] },
    });
    const change = { ...form, id: supplierId, version: 1, cutOff: '13:30' };
    expect(await world.do('saveSupplier', change, world.callers.admin)).toMatchObject({ ok: true });
    expect(await world.do('saveSupplier', change, world.callers.admin)).toMatchObject({ error: { kind: 'conflict' } });
  });
  it('one that is called by telephone: nothing is sent, somebody says what was promised', async () => {
    await world.db.owner`update supplier set endpoint = null where name = 'Harbour Optical Supply' and practice_id = ${world.practiceId}`;
    const { orderId } = await placed(1);
    expect(await stage(orderId)).toBe('placed');
    const said = (dueOn: string) => world.do('recordTelephoned', { orderId, reference: 'T-9', dueOn }, desk());
    expect(await said('1 Nov 2026')).toMatchObject({ error: { fields: [{ path: ['dueOn'], code: 'dayPast' }] } });
    expect(await said('1 Dec 2026')).toMatchObject({ ok: true });
    expect(await said('8 Dec 2026')).toMatchObject({ ok: true });
    expect((await read(orderId)).events.map((e) => [e.state, e.dueOn])).toEqual([
      ['placed', null],
      ['acknowledged', '2026-12-01'],
      ['delayed', '2026-12-08'],
    ]);
    await world.db.owner`update supplier set endpoint = 'harbour' where name = 'Harbour Optical Supply' and practice_id = ${world.practiceId}`;
  });
});

describe('a bag about to be handed over', () => {
  it('is said whose it is, by its label: here, gone home, another wearer’s, of nobody', async () => {
    const one = await placed(1);
    const other = await placed(1);
    for (const { orderId } of [one, other]) await receive(orderId, 1, 1);
    const bag = async (orderId: string, code: string) => (await world.must('readBag', { orderId, code }, desk())) as unknown as BagSaid;
    const order = await read(one.orderId);
    const [right, left] = order.receipts;
    expect(await bag(one.orderId, bagCode({ receiptId: right?.id ?? '', eye: 'right' }))).toMatchObject({
      kind: 'here',
      eye: 'right',
      receiptIds: [right?.id],
    });
    expect(await bag(one.orderId, bagCode({ receiptId: left?.id ?? '', eye: 'left' }))).toMatchObject({ kind: 'here', eye: 'left' });
    const theirs = (await read(other.orderId)).receipts[0]?.id ?? '';
    expect(await bag(one.orderId, bagCode({ receiptId: theirs, eye: 'right' }))).toMatchObject({ kind: 'another', number: other.number });
    expect(await bag(one.orderId, bagCode({ receiptId: randomUUID(), eye: 'right' }))).toEqual({ kind: 'unknown' });
    expect(await bag(one.orderId, 'what is this')).toEqual({ kind: 'unread' });
    await world.must('handOverBoxes', {
      orderId: one.orderId,
      visitId: one.visitId,
      version: await world.version(one.visitId),
      receiptIds: [right?.id],
      identityAsked: true,
      experienceNote: 'for years',
    });
    expect(await bag(one.orderId, bagCode({ receiptId: right?.id ?? '', eye: 'right' }))).toEqual({ kind: 'handedOver', eye: 'right' });
  });
});
