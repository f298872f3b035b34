import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { boxesOf, orderOf, provenance } from '../../src/core';
import { newWearer, openWorld, signPair, type World } from './support';

let world: World;
let visitId: string;
let orderId: string;
let prescriptionId: string;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

/** Whoever has boxes on the way already is sold fewer: the demo has nine wearers, and for each test another one comes. */
let wearer = 0;
const nextWearer = async (): Promise<number> => {
  wearer += 1;
  return wearer <= 9 ? wearer : newWearer(world);
};
/** Two boxes an eye, ordered and on their way: enough to the end of the prescription. */
beforeEach(async () => {
  visitId = await world.visit(await nextWearer(), { right: '-2.00', left: '-2.25' });
  prescriptionId = await signPair(world, visitId);
  orderId = (await place(2)).orderId ?? '';
});
const place = async (packs: number) =>
  world.must('placeOrder', { visitId, version: await world.version(visitId), requestKey: randomUUID(), prescriptionId, rightPacks: packs, leftPacks: packs });
const box = (lot: string, packs = 2) => ({ packs, lot, expiresOn: '1 Mar 2029' });
const came = (right: object | null, left: object | null) => world.do('recordReceipt', { orderId, right, left }, world.callers.coordinator);
const record = () => world.record(visitId);
const order = async () => {
  const found = (await record()).orders.find((o) => o.id === orderId);
  if (!found) throw new Error('order');
  return found;
};
const handOver = async (receiptIds: readonly string[], more: object = {}) =>
  world.do(
    'handOverBoxes',
    { visitId, version: await world.version(visitId), orderId, receiptIds, identityAsked: true, experienceNote: 'wears since 2019', ...more },
    world.callers.coordinator,
  );

describe('boxes that came', () => {
  it('are kept by eye, with lot and day, and may come in parts', async () => {
    expect(await came(box('R1', 1), box('L1'))).toMatchObject({ ok: true });
    expect(boxesOf(await order(), 'right')).toMatchObject({ ordered: 2, received: 1, handedOver: 0 });
    expect(boxesOf(await order(), 'left')).toMatchObject({ ordered: 2, received: 2 });
    expect((await order()).events.at(-1)).toMatchObject({ state: 'received', detail: { right: 1, left: 2 } });
    expect(await came(box('R2', 1), null)).toMatchObject({ ok: true });
    expect((await order()).receipts.map((r) => [r.lot, r.receivedByName])).toEqual([
      ['R1', 'Renny Okoro-Vale'],
      ['L1', 'Renny Okoro-Vale'],
      ['R2', 'Renny Okoro-Vale'],
    ]);
  });
  it.each([
    [{ packs: 3 }, 'packs', 'packsTooMany'],
    [{ packs: 0 }, 'packs', 'packsReceived'],
    [{ lot: '' }, 'lot', 'lotRequired'],
    [{ expiresOn: '1 Jan 2026' }, 'expiresOn', 'boxExpired'],
  ])('%o is said at its field, and nothing of the other eye is kept', async (wrong, field, code) => {
    expect(await came(box('R1'), { ...box('L1'), ...wrong })).toMatchObject({ error: { fields: [{ path: ['left', field], code }] } });
    expect((await order()).receipts).toEqual([]);
  });
  it('two who unpack one parcel: what is one too many is refused', async () => {
    const done = await Promise.all([came(box('R1'), null), came(box('R1'), null)]);
    expect(done.filter((d) => d.ok)).toHaveLength(1);
    expect(done.find((d) => !d.ok)).toMatchObject({ error: { fields: [{ path: ['right', 'packs'], code: 'packsTooMany', data: { left: 0, ordered: 2 } }] } });
  });
});

describe('boxes that go home', () => {
  it('are what is worn from then on, counted lens by lens; nothing is waited for any more, and another order asks what any asks', async () => {
    await came(box('R1'), box('L1'));
    const { receipts } = await order();
    expect(await handOver(receipts.map((r) => r.id))).toMatchObject({ ok: true });
    const after = await record();
    const [right, left] = [after.handOvers.at(-2)?.current, after.handOvers.at(-1)?.current];
    expect([right?.eye, left?.eye]).toEqual(['right', 'left']);
    expect(right).toMatchObject({ source: 'order', lot: 'R1', openedOn: null, lensCount: 12, lensOnEyeId: null });
    expect(provenance({ ...after, onEye: [], broughtAlong: [] }, 'left').worn).toMatchObject({ kind: 'handedOver', lensId: receipts[1]?.lensId });
    const prescription = after.prescriptions.find((p) => p.id === prescriptionId);
    if (!prescription) throw new Error('prescription');
    expect(orderOf(after, prescription, 'right')).toBeNull();
    const more = { visitId, version: await world.version(visitId), requestKey: randomUUID(), prescriptionId, rightPacks: 1, leftPacks: 0 };
    expect(await world.do('placeOrder', more)).toMatchObject({ error: { fields: [{ path: ['rightPacks'], code: 'examinationFirst' }] } });
  });
  it('half a year later they are nearly used up: what was handed over counts from then on, and the next half year can be ordered', async () => {
    visitId = await world.visit(await nextWearer(), { right: '-2.00', left: '-2.25' });
    prescriptionId = await signPair(world, visitId);
    orderId = (await place(1)).orderId ?? '';
    await came(box('R1', 1), box('L1', 1));
    await handOver((await order()).receipts.map((r) => r.id));
    world.move(160 * 86_400);
    const { visitId: later = '' } = await world.must('openVisit', { wearerId: (await record()).wearer.id, kind: 'collection' }, world.callers.coordinator);
    visitId = later;
    expect(await place(1)).toMatchObject({ orderId: expect.any(String) as string });
    world.move(-160 * 86_400);
  });
  it('not twice, not without asking who takes them, not without lesson or note, not to somebody else', async () => {
    await came(box('R1'), null);
    const [receipt] = (await order()).receipts;
    const id = receipt?.id ?? '';
    expect(await handOver([id], { identityAsked: false })).toMatchObject({ error: { fields: [{ path: ['identityAsked'], code: 'identityNotAsked' }] } });
    expect(await handOver([id], { experienceNote: '' })).toMatchObject({ error: { rule: 'signOffNeeded' } });
    const mine = visitId;
    visitId = await world.visit(await nextWearer());
    expect(await handOver([id])).toMatchObject({ error: { kind: 'notFound' } });
    visitId = mine;
    expect(await handOver([id])).toMatchObject({ ok: true });
    expect(await handOver([id])).toMatchObject({ error: { rule: 'handedOverAlready' } });
  });
  it('handed over by mistake and taken back, they lie here again', async () => {
    await came(box('R1'), null);
    const [receipt] = (await order()).receipts;
    await handOver([receipt?.id ?? '']);
    const fact = (await record()).handOvers.at(-1)?.current;
    await world.must('correct', { visitId, version: await world.version(visitId), kind: 'handOver', factId: fact?.id, reason: 'wrong bag', value: null });
    expect(boxesOf(await order(), 'right')?.here).toHaveLength(1);
  });
});
