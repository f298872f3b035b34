import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays, type ReorderCall } from '../../src/core';
import { TEST_TODAY } from '../support/moment';
import { openWorld, signPair, type World } from './support';

let world: World;
let wearerId: string;
let prescriptionId: string;
beforeAll(async () => {
  world = await openWorld();
  wearerId = await world.wearerId(1);
  const visitId = await world.visit(1, { right: '-2.00', left: '-2.25' });
  prescriptionId = await signPair(world, visitId);
  await world.must('closeVisit', { visitId, version: await world.version(visitId) });
}, 60_000);
afterAll(() => world.db.close());

const desk = () => world.callers.coordinator;
const order = (change: object = {}) =>
  world.do(
    'reorderLenses',
    { wearerId, requestKey: randomUUID(), prescriptionId, rightPacks: 1, leftPacks: 1, noDanger: true, sightSame: true, ...change },
    desk(),
  );
const page = async () => (await world.must('readReorder', { wearerId }, desk())) as unknown as { calls: ReorderCall[]; file: { orders: { id: string }[] } };
const counts = async () => {
  const [row] = await world.db.owner<{ orders: number; visits: number; calls: number }[]>`
    select (select count(*) from lens_order where wearer_id = ${wearerId})::int as orders,
      (select count(*) from visit where wearer_id = ${wearerId} and kind = 'reorder')::int as visits,
      (select count(*) from reorder_call where wearer_id = ${wearerId})::int as calls`;
  return row;
};

describe('lenses ordered on the telephone by a coordinator', () => {
  it('only once danger signs and sight were asked; a refusal leaves nothing behind', async () => {
    expect(await order({ noDanger: false })).toMatchObject({ error: { fields: [{ path: ['noDanger'], code: 'dangerNotAsked' }] } });
    expect(await order({ sightSame: false })).toMatchObject({ error: { fields: [{ path: ['sightSame'], code: 'sightNotAsked' }] } });
    expect(await order({ rightPacks: 0, leftPacks: 0 })).toMatchObject({ error: { fields: [{ path: ['rightPacks'], code: 'packsRequired' }] } });
    expect(await order({ prescriptionId: randomUUID() })).toMatchObject({ error: { kind: 'notFound' } });
    expect(await order({ wearerId: randomUUID() })).toMatchObject({ error: { kind: 'notFound' } });
    expect(await order({ rightPacks: 9 })).toMatchObject({ error: { fields: [{ path: ['rightPacks'], code: 'pastExpiry' }] } });
    expect(await counts()).toEqual({ orders: 0, visits: 0, calls: 0 });
  });
  it('is one order however often the press comes, kept as a visit that is over, with the call', async () => {
    const requestKey = randomUUID();
    const first = await order({ requestKey, note: 'asked about the sea' });
    expect(first).toMatchObject({ ok: true });
    expect(await order({ requestKey })).toEqual(first);
    expect(await counts()).toEqual({ orders: 1, visits: 1, calls: 1 });
    const [visit] = await world.db.owner`
      select v.closed_at is not null as closed, d.fee::float8 as fee, a.value
      from visit v join visit_decision d on d.visit_id = v.id join history_answer a on a.visit_id = v.id where v.wearer_id = ${wearerId} and v.kind = 'reorder'`;
    expect(visit).toEqual({ closed: true, fee: 0, value: ['none'] });
    expect((await page()).calls).toMatchObject([{ outcome: 'ordered', note: 'asked about the sea' }]);
    expect(await world.db.owner`select done_at from order_dispatch`).toHaveLength(1);
  });
  it('what is on its way counts: one box over goes with the examination booked, two do not', async () => {
    // Two boxes of six end with the prescription; one is ordered already.
    const past = { code: 'examinationFirst' };
    expect(await order({ rightPacks: 2, leftPacks: 0 })).toMatchObject({ error: { fields: [{ path: ['rightPacks'], ...past }] } });
    const day = addDays(TEST_TODAY, 6);
    const place = { day, time: '10:00', chairMinutes: 30, staffMinutes: 20, roomId: null, staffId: null, despite: '' };
    await world.must('bookAppointment', { wearerId, kind: 'collection', note: '', ...place, time: '9:00' }, desk());
    expect(await order({ rightPacks: 2, leftPacks: 0 })).toMatchObject({ error: { fields: [past] } });
    await world.must('bookAppointment', { wearerId, kind: 'fullAnnual', note: '', ...place }, desk());
    expect(await order({ rightPacks: 3, leftPacks: 0 })).toMatchObject({ error: { fields: [{ path: ['rightPacks'], code: 'pastExpiry' }] } });
    expect(await order({ rightPacks: 2, leftPacks: 0 })).toMatchObject({ ok: true });
  });
  it('goes straight to the wearer where its supplier does so, and is asked about; else it comes here', async () => {
    expect(await order({ leftPacks: 0, deliveryAddress: 'Quay' })).toMatchObject({ error: { fields: [{ path: ['deliveryAddress'], code: 'addressShort' }] } });
    const to = { leftPacks: 0, rightPacks: 1, deliveryAddress: '4 Quay Street, Saltmarsh' };
    expect(await order(to)).toMatchObject({ error: { fields: [{ path: ['deliveryAddress'], code: 'supplierNotToWearers' }] } });
  });
  it('a danger sign that was reported holds it up, whoever asks', async () => {
    await world.must('triageRedEye', { wearerId, signs: ['pain'], onset: '', goes: 'emergency', time: null }, desk());
    expect(await order()).toMatchObject({ ok: false, error: { kind: 'ruleBroken' } });
    expect((await counts())?.orders).toBe(2);
  });
});

describe('a call after which nothing is ordered', () => {
  const end = (change: object) => world.do('recordReorderCall', { wearerId, outcome: 'message', ...change }, desk());
  it('is kept with why, and from when on to call again', async () => {
    expect(await end({ outcome: 'later' })).toMatchObject({ error: { fields: [{ path: ['laterOn'], code: 'dayRequired' }] } });
    expect(await end({ outcome: 'later', laterOn: '1 Jan 2020' })).toMatchObject({ error: { fields: [{ path: ['laterOn'], code: 'dayPast' }] } });
    expect(await end({ outcome: 'ordered' })).toMatchObject({ error: { kind: 'invalid' } });
    expect(await end({ outcome: 'later', laterOn: '1 Feb 2027', note: 'away until then' })).toMatchObject({ ok: true });
    expect(await end({})).toMatchObject({ ok: true });
    expect((await page()).calls.map((c) => [c.outcome, c.laterOn, c.note])).toEqual(
      expect.arrayContaining([
        ['later', '2027-02-01', 'away until then'],
        ['message', null, null],
      ]),
    );
  });
  it('is appended, and belongs to the file of the person', async () => {
    await expect(world.db.app`update reorder_call set outcome = 'message'`).rejects.toThrow(/permission denied/);
    await expect(world.db.app`delete from reorder_call`).rejects.toThrow(/permission denied/);
  });
});
