import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays, inForce, oldBoxes, type Eye, type WearerFile } from '../../src/core';
import { fillDrawer } from '../support/drawer';
import { stockFaults } from '../support/stockFaults';
import { TEST_TODAY } from '../support/moment';
import { newWearer, openWorld, SENTENCES, signPair, spec, type World } from './support';

let world: World;
let wearerId: string;
let visitId: string;
let prescriptionId: string;
let today = TEST_TODAY;
const desk = () => world.callers.coordinator;
const pass = (days: number): void => {
  world.move(days * 24 * 3600);
  today = addDays(today, days);
};
const box = (lot: string) => ({ lot, expiresOn: '2029-01-31', packs: 1, codes: [], power: null });
/** A box of six monthlies an eye, ordered, come and taken home. */
async function boxesHome(): Promise<void> {
  const asked = { requestKey: randomUUID(), rightPacks: 1, leftPacks: 1, noDanger: true, sightSame: true };
  const { orderId = '' } = await world.must('reorderLenses', { wearerId, prescriptionId, ...asked }, desk());
  await world.must('recordReceipt', { orderId, right: box('A1'), left: box('A2') }, desk());
  const receipts = await world.db.owner<
    { id: string }[]
  >`select r.id from order_receipt r join order_line l on l.id = r.order_line_id where l.order_id = ${orderId}`;
  const of = { orderId, visitId, version: await world.version(visitId), receiptIds: receipts.map((r) => r.id) };
  await world.must('handOverBoxes', { ...of, identityAsked: true, experienceNote: 'worn for years' });
}
const page = async () => (await world.must('readReorder', { wearerId }, desk())) as unknown as { file: WearerFile; trials: Record<string, number> };
const drawer = async (): Promise<number> => (await world.db.owner<{ n: number }[]>`select coalesce(sum(count), 0)::int as n from trial_stock`)[0]?.n ?? 0;
const bridge = (change: object = {}) =>
  world.do('bridgeWithTrials', { wearerId, prescriptionId, right: 1, left: 1, noDanger: true, identityAsked: true, ...change }, desk());
const stockOf = async (eye: Eye): Promise<number> => (await page()).file.handOvers.reduce((n, { current: h }) => (h?.eye === eye ? n + h.lensCount : n), 0);

beforeAll(async () => {
  world = await openWorld();
  wearerId = await world.wearerId(1);
  visitId = await world.visit(1, { right: '-2.00', left: '-2.25' });
  prescriptionId = await signPair(world, visitId);
}, 60_000);
afterAll(() => world.db.close());

describe('boxes of a power that was changed', () => {
  it('of the eye whose power changed, unopened: exchanged by a claim of their order, and then proposed no more', async () => {
    const record = await newWearer(world);
    const first = await world.visit(record, { right: '-2.00', left: '-2.25' });
    const held = await signPair(world, first);
    const version = await world.version(first);
    const { orderId = '' } = await world.must('placeOrder', {
      visitId: first,
      version,
      requestKey: randomUUID(),
      prescriptionId: held,
      rightPacks: 2,
      leftPacks: 2,
    });
    await world.must('recordReceipt', { orderId, right: { ...box('C1'), packs: 2 }, left: { ...box('C2'), packs: 2 } }, desk());
    const receipts = await world.db.owner<
      { id: string }[]
    >`select r.id from order_receipt r join order_line l on l.id = r.order_line_id where l.order_id = ${orderId}`;
    const of = { orderId, visitId: first, version: await world.version(first), receiptIds: receipts.map((r) => r.id) };
    await world.must('handOverBoxes', { ...of, identityAsked: true, experienceNote: 'worn for years' });
    await world.must('closeVisit', { visitId: first, version: await world.version(first) });
    pass(20);
    const second = await world.visit(record, { right: '-2.50', left: '-2.25' }, 'refit');
    const lens = await spec(world, 'turnstone-30', -2.5, 0, 180, 8.4, 14.2);
    const eyes = { right: { mode: 'final', lens, triedLensOnEyeId: null }, left: { mode: 'final', lens: { ...lens, sphere: -2.25 }, triedLensOnEyeId: null } };
    const signed = {
      visitId: second,
      version: 2,
      password: 'plain-sight',
      ...eyes,
      expiresOn: addDays(today, 365),
      waitNote: 'x y',
      daysPerWeek: 7,
      overrides: SENTENCES,
    };
    await world.must('sign', signed);
    const id = await world.wearerId(record);
    const found = async () => {
      const { file } = (await world.must('readReorder', { wearerId: id }, desk())) as unknown as { file: WearerFile };
      const [prescription] = inForce(file.prescriptions);
      return prescription ? oldBoxes(file, prescription, today) : [];
    };
    const [old, ...rest] = await found();
    expect(rest).toEqual([]);
    expect(old).toMatchObject({ orderId, eye: 'right', at: 'withWearer', packs: 1 });
    const claim = { orderId, orderLineId: old?.orderLineId, kind: 'exchange', packs: 1, note: '' };
    expect(await world.do('openClaim', { ...claim, packs: 3 }, desk())).toMatchObject({ error: { fields: [{ path: ['packs'], code: 'claimTooMany' }] } });
    await world.must('openClaim', claim, desk());
    expect(await found()).toEqual([]);
  });
});

describe('trial lenses that go home until boxes come', () => {
  it('only of the lens that is worn: nobody who has had none', async () => {
    expect(await bridge()).toMatchObject({ error: { fields: [{ path: ['right'], code: 'bridgeOther' }] } });
  });
  it('are asked for by name, birth date and danger signs; more than lie there are refused, and nothing is half given', async () => {
    await boxesHome();
    pass(178);
    const { trials } = await page();
    expect(Object.values(trials).length).toBeGreaterThan(0);
    expect(await bridge({ identityAsked: false })).toMatchObject({ error: { fields: [{ path: ['identityAsked'], code: 'identityNotAsked' }] } });
    expect(await bridge({ noDanger: false })).toMatchObject({ error: { fields: [{ path: ['noDanger'], code: 'dangerNotAsked' }] } });
    expect(await bridge({ right: 0, left: 0 })).toMatchObject({ error: { fields: [{ code: 'bridgeCount' }] } });
    await fillDrawer(world.db.owner, 0);
    expect(await bridge()).toMatchObject({ error: { fields: [{ path: ['right'], code: 'bridgeFewer', data: { left: 0 } }] } });
    await fillDrawer(world.db.owner, 2);
    expect(await bridge({ left: 9 })).toMatchObject({ error: { fields: [{ path: ['left'], code: 'bridgeFewer' }] } });
    expect(await stockOf('right')).toBe(6);
  });
  it('leave the drawer, lengthen what is in hand by their life, and are kept as a visit of their own that is over', async () => {
    const before = await drawer();
    const [kept] = await world.db.owner<{ inHandUntil: string }[]>`select in_hand_until from eye_runway where of_wearer_id = ${wearerId} and eye = 'right'`;
    expect(await bridge()).toMatchObject({ ok: true });
    expect(await drawer()).toBe(before - 2);
    expect(await stockOf('right')).toBe(7);
    const [after] = await world.db.owner<{ inHandUntil: string }[]>`select in_hand_until from eye_runway where of_wearer_id = ${wearerId} and eye = 'right'`;
    expect(after?.inHandUntil).toBe(addDays(kept?.inHandUntil ?? today, 30));
    const [visit] = await world.db.owner`
      select v.closed_at is not null as closed, count(h.id)::int as given from visit v join hand_over h on h.visit_id = v.id
      where v.wearer_id = ${wearerId} and v.kind = 'reorder' and h.source = 'trial' group by 1`;
    expect(visit).toEqual({ closed: true, given: 2 });
    expect(await stockFaults(world.db.owner)).toEqual([]);
  });
  it('said in error, they lie in their lot again', async () => {
    const before = await drawer();
    const [given] = await world.db.owner<{ visitId: string }[]>`
      select visit_id from hand_over where wearer_id = ${wearerId} and source = 'trial' and eye = 'right'`;
    const of = { visitId: given?.visitId, reason: 'left on the desk' };
    expect(await world.do('withdrawBridge', { ...of, reason: '' }, desk())).toMatchObject({ error: { fields: [{ path: ['reason'] }] } });
    await world.must('withdrawBridge', of, desk());
    expect(await world.do('withdrawBridge', of, desk())).toMatchObject({ error: { kind: 'notFound' } });
    expect(await world.do('withdrawBridge', { ...of, visitId }, desk())).toMatchObject({ error: { kind: 'notFound' } });
    expect(await drawer()).toBe(before + 2);
    expect(await stockOf('right')).toBe(6);
    expect(await stockFaults(world.db.owner)).toEqual([]);
  });
  it('a day later it is no slip any more', async () => {
    const given = (await bridge()) as unknown as { value: { visitId: string } };
    pass(1);
    const late = { visitId: given.value.visitId, reason: 'left on the desk' };
    expect(await world.do('withdrawBridge', late, desk())).toMatchObject({ error: { kind: 'ruleBroken', rule: 'bridgeOlder' } });
    expect(await stockFaults(world.db.owner)).toEqual([]);
  });
  it('an ended prescription, a stop or a danger sign bars them, with what would free it', async () => {
    pass(200);
    expect(await bridge()).toMatchObject({ error: { kind: 'ruleBroken', rule: 'bridgeBarred', data: { bar: 'expired' } } });
    await world.must('triageRedEye', { wearerId, signs: ['pain'], onset: '', goes: 'emergency', time: null }, desk());
    expect(await bridge()).toMatchObject({ error: { kind: 'ruleBroken', data: { bar: 'alerted' } } });
  });
});
