import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lastLook } from '../../src/core';
import { eyesOfRecord } from '../../src/features/visit/shell/eyes';
import { healthOfRecord } from '../../src/features/visit/shell/health';
import { lensesOfRecord } from '../../src/features/visit/shell/lenses';
import { fillDrawer } from '../support/drawer';
import { newWearer, openWorld, SENTENCES, spec, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
  await fillDrawer(world.db.owner, 30, { code: 'turnstone-30' });
}, 60_000);
afterAll(() => world.db.close());

const at = async (visitId: string) => ({ visitId, version: await world.version(visitId) });
const ONE = { right: '-2.00', left: '-2.00' } as const;

/** A presbyope in a visit who was set apart: left far, right near at 33 cm by +1.50. */
async function setApart() {
  const record = await newWearer(world);
  const visitId = await world.visit(record, ONE);
  await world.must('recordRefraction', { ...(await at(visitId)), ...ONE, vertexMm: 12, rightAdd: '+1.50', leftAdd: '+1.50', nearCm: 33 });
  const keep = async (sign: string, value: string | number, of = visitId) =>
    world.must('recordNearFindings', { ...(await at(of)), findings: [{ sign, value }] });
  await keep('dominanceBlur', 'left');
  await world.must('decideNearWay', { ...(await at(visitId)), way: 'monovision', reason: 'reads music at arm’s length' });
  return { record, visitId, keep };
}
const lens = (sphere: number) => spec(world, 'turnstone-30', sphere, 0, 180, 8.4, 14.2);
/** The pair on the eyes: far left, near right. */
async function putOn(visitId: string) {
  await world.must('putOnTrials', { ...(await at(visitId)), right: await lens(-0.5), left: await lens(-2) });
  const { onEye } = (await world.record(visitId)).facts;
  const of = (eye: 'right' | 'left') => onEye.find((c) => c.current?.eye === eye)?.rootId ?? '';
  return { rightLensOnEyeId: of('right'), leftLensOnEyeId: of('left') };
}
const stateOf = async (visitId: string) => {
  const record = await world.record(visitId);
  const eyes = eyesOfRecord(record, lensesOfRecord(record));
  const health = healthOfRecord(record, { right: null, left: null });
  const look = (eye: 'right' | 'left') => lastLook(eyes[eye], health, eye, { wearsAdd: false, overnight: false, overnightApproved: false });
  return { eyes, sight: { right: look('right').find((l) => l.area === 'sight'), left: look('left').find((l) => l.area === 'sight') } };
};
const sign = async (visitId: string, on: Awaited<ReturnType<typeof putOn>>, more: object = {}) =>
  world.do('sign', {
    ...(await at(visitId)),
    password: 'plain-sight',
    right: { mode: 'final', lens: await lens(-0.5), triedLensOnEyeId: on.rightLensOnEyeId },
    left: { mode: 'final', lens: await lens(-2), triedLensOnEyeId: on.leftLensOnEyeId },
    expiresOn: '24 Nov 2027',
    waitNote: 'worn so for years',
    daysPerWeek: 7,
    overrides: SENTENCES,
    ...more,
  });
const acuity = (logMar: number) => ({ logMar, typed: String(logMar) });

describe('what each eye is to see', () => {
  it('stands on the prescription and on the order under it, with its distance', async () => {
    const of = await setApart();
    const on = await putOn(of.visitId);
    const signed = await sign(of.visitId, on);
    expect(signed).toMatchObject({ ok: true });
    const [prescription] = (await world.record(of.visitId)).prescriptions;
    const aim = (eye: string) => prescription?.eyes.find((e) => e.eye === eye)?.aim;
    expect(aim('left')).toEqual({ sees: 'far', cm: null });
    expect(aim('right')).toEqual({ sees: 'near', cm: 33 });
    await world.must('placeOrder', {
      ...(await at(of.visitId)),
      prescriptionId: prescription?.id,
      requestKey: crypto.randomUUID(),
      rightPacks: 1,
      leftPacks: 1,
      pastExpiryNote: '',
    });
    const [order] = (await world.record(of.visitId)).orders;
    expect(order?.lines.find((l) => l.eye === 'right')?.aim).toEqual({ sees: 'near', cm: 33 });
    expect(order?.lines.find((l) => l.eye === 'left')?.aim).toEqual({ sees: 'far', cm: null });
  });
  it('a laboratory is not asked for a near eye: it would work out its far power', async () => {
    const of = await setApart();
    const on = await putOn(of.visitId);
    const raw = { mode: 'raw', triedLensOnEyeId: on.rightLensOnEyeId, baseCurve: 8.4, diameter: 14.2 };
    expect(await sign(of.visitId, on, { right: raw, left: null })).toMatchObject({ error: { rule: 'rawNearEye', data: { eye: 'right' } } });
  });
  it('is nothing while nobody decided; the database takes no near without its distance', async () => {
    const record = await newWearer(world);
    const visitId = await world.visit(record, ONE);
    const on = await putOn(visitId);
    expect(await sign(visitId, on)).toMatchObject({ ok: true });
    const [prescription] = (await world.record(visitId)).prescriptions;
    expect(prescription?.eyes.map((e) => e.aim)).toEqual([null, null]);
    for (const aim of [{ sees: 'near' }, { sees: 'sideways', cm: 40 }, { sees: 'far', cm: 40 }, { sees: 'near', cm: 4000 }])
      await expect(
        world.db.owner`update prescription_eye set aim = ${world.db.owner.json(aim)} where prescription_id = ${prescription?.id ?? ''}`,
      ).rejects.toThrow();
  });
});

describe('who is set apart stays so at the next visit', () => {
  it('with the addition of the last one: the near eye is served near though no addition was found again', async () => {
    const of = await setApart();
    const before = (await stateOf(of.visitId)).eyes.right.verdict.need?.sphere ?? 0;
    await world.must('closeVisit', await at(of.visitId));
    world.move(365 * 24 * 3600);
    const next = await world.visit(of.record, ONE);
    const { eyes } = await stateOf(next);
    expect(eyes.right.aim).toEqual({ sees: 'near', plus: 1.5 });
    expect(eyes.right.verdict.need?.sphere).toBeCloseTo(before, 9);
    expect(eyes.left.aim.sees).toBe('far');
  });
  it('what the near eye’s lens shows at distance proves nothing: it asks for near, and near decides', async () => {
    const of = await setApart();
    await world.must('recordRefraction', {
      ...(await at(of.visitId)),
      ...ONE,
      vertexMm: 12,
      rightAcuity: acuity(0),
      leftAcuity: acuity(0),
      rightAdd: '+1.50',
      leftAdd: '+1.50',
      nearCm: 33,
    });
    const on = await putOn(of.visitId);
    const far = (lensOnEyeId: string, read: number) => ({ lensOnEyeId, vertexMm: 12, findings: [{ sign: 'acuityLens', value: read, typed: String(read) }] });
    await world.must('recordOnEye', { ...(await at(of.visitId)), right: far(on.rightLensOnEyeId, 0.5), left: far(on.leftLensOnEyeId, 0) });
    expect((await stateOf(of.visitId)).sight).toMatchObject({ right: { code: 'sightNearUnread', state: 'asks' }, left: { code: 'sightFine' } });
    const alone = async (read: number) =>
      world.must('recordPairReading', {
        ...(await at(of.visitId)),
        ...on,
        tasks: [{ task: 'phone', distanceCm: 33, satisfaction: 5, acuity: acuity(read), covered: 'left' }],
        held: [],
      });
    await alone(0.4);
    expect((await stateOf(of.visitId)).sight.right).toMatchObject({ code: 'sightUnrestored', state: 'asks' });
    await alone(0.04);
    expect((await stateOf(of.visitId)).sight.right).toMatchObject({ code: 'sightFine' });
  });
});

describe('driving is asked about before the pair goes home', () => {
  const goes = async (visitId: string, on: Awaited<ReturnType<typeof putOn>>) => {
    const { onEye } = (await world.record(visitId)).facts;
    const box = (id: string) => {
      const row = onEye.find((c) => c.rootId === id)?.current;
      return { lensOnEyeId: id, lot: row?.lot, expiresOn: row?.expiresOn, lensCount: 1 };
    };
    return world.do('handOver', {
      ...(await at(visitId)),
      right: box(on.rightLensOnEyeId),
      left: box(on.leftLensOnEyeId),
      experienceNote: 'has worn lenses for years',
    });
  };
  const says = async (visitId: string, said: string, caller = world.callers.coordinator) => world.do('recordDriving', { ...(await at(visitId)), said }, caller);
  it('unasked it stays; who waits takes it home; the word is kept', async () => {
    const of = await setApart();
    const on = await putOn(of.visitId);
    expect(await goes(of.visitId, on)).toMatchObject({ error: { kind: 'ruleBroken', rule: 'drivingUnasked' } });
    expect(await says(of.visitId, 'waits')).toMatchObject({ ok: true });
    expect(await goes(of.visitId, on)).toMatchObject({ ok: true });
    expect((await world.record(of.visitId)).nearFindings.at(-1)?.current).toMatchObject({ sign: 'driving', wordValue: 'waits' });
  });
  it('boxes that came for the pair stay too until it was asked', async () => {
    const of = await setApart();
    const on = await putOn(of.visitId);
    expect(await sign(of.visitId, on, { expiresOn: '20 Nov 2028' })).toMatchObject({ ok: true });
    const [prescription] = (await world.record(of.visitId)).prescriptions;
    const ordered = { prescriptionId: prescription?.id, requestKey: crypto.randomUUID(), rightPacks: 1, leftPacks: 1, pastExpiryNote: '' };
    await world.must('placeOrder', { ...(await at(of.visitId)), ...ordered });
    const orderOf = async () => (await world.record(of.visitId)).orders[0];
    const orderId = (await orderOf())?.id;
    const box = (lot: string) => ({ packs: 1, lot, expiresOn: '1 Mar 2029' });
    await world.must('recordReceipt', { orderId, right: box('R1'), left: box('L1') });
    const receiptIds = ((await orderOf())?.receipts ?? []).map((r) => r.id);
    const home = async () =>
      world.do('handOverBoxes', { ...(await at(of.visitId)), orderId, receiptIds, identityAsked: true, experienceNote: 'worn so for years' });
    expect(await home()).toMatchObject({ error: { kind: 'ruleBroken', rule: 'drivingUnasked' } });
    expect(((await orderOf())?.receipts ?? []).map((r) => r.handedOver)).toEqual([false, false]);
    expect(await says(of.visitId, 'doesNotDrive')).toMatchObject({ ok: true });
    expect(await home()).toMatchObject({ ok: true });
  });
  it('who is used to them reads 20/40 with both eyes; it is no finding among others', async () => {
    const of = await setApart();
    const on = await putOn(of.visitId);
    await says(of.visitId, 'usedToIt');
    expect(await goes(of.visitId, on)).toMatchObject({ error: { rule: 'drivingUnread' } });
    const both = async (read: number) =>
      world.must('recordPairReading', {
        ...(await at(of.visitId)),
        ...on,
        tasks: [{ task: 'road', distanceCm: 600, satisfaction: 7, acuity: acuity(read), covered: null }],
        held: [],
      });
    await both(0.4);
    expect(await goes(of.visitId, on)).toMatchObject({ error: { rule: 'drivingShort' } });
    await both(0.1);
    expect(await goes(of.visitId, on)).toMatchObject({ ok: true });
    expect(await world.do('recordNearFindings', { ...(await at(of.visitId)), findings: [{ sign: 'driving', value: 'waits' }] })).toMatchObject({
      error: { kind: 'invalid' },
    });
  });
});
