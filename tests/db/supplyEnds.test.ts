import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openWorld, signPair, spec, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

describe('an order that lasts past its prescription', () => {
  it('is refused, or a prescriber says why: as the practice has chosen', async () => {
    const visitId = await world.visit(1, { right: '-2.00', left: '-2.25' });
    const prescriptionId = await signPair(world, visitId);
    const order = async (more: object = {}, caller = world.asha) =>
      world.do(
        'placeOrder',
        { visitId, version: await world.version(visitId), requestKey: randomUUID(), prescriptionId, rightPacks: 9, leftPacks: 0, pastExpiryNote: '', ...more },
        caller,
      );
    expect(await order({ pastExpiryNote: 'at sea for two years' })).toMatchObject({ error: { fields: [{ path: ['rightPacks'], code: 'pastExpiry' }] } });
    await world.must('changeSetting', { key: 'pastExpiry', value: 'prescriberNote', lastChangeId: null }, world.callers.admin);
    expect(await order({}, world.callers.coordinator)).toMatchObject({ error: { fields: [{ path: ['rightPacks'], code: 'pastExpiryPrescriber' }] } });
    expect(await order()).toMatchObject({ error: { fields: [{ path: ['pastExpiryNote'], code: 'pastExpiryNote' }] } });
    expect(await order({ pastExpiryNote: 'at sea for two years' })).toMatchObject({ ok: true });
    expect(await world.db.owner`select past_expiry_note as note from lens_order where visit_id = ${visitId}`).toEqual([{ note: 'at sea for two years' }]);
  });
});

describe('daily trial lenses that go home', () => {
  it('are as many as are said, and the drawer counts them', async () => {
    const visitId = await world.visit(2, { right: '-3.00 -0.75 x 180', left: null });
    const lens = await spec(world, 'dunlin-1-day-toric', -3, -0.75, 180, 8.5, 14.2);
    await world.must('putOnTrials', { visitId, version: await world.version(visitId), right: lens, left: null });
    const [onEye] = (await world.record(visitId)).facts.onEye;
    const row = onEye?.current;
    const give = async (lensCount: number) =>
      world.do('handOver', {
        visitId,
        version: await world.version(visitId),
        right: { lensOnEyeId: onEye?.rootId, lot: row?.lot, expiresOn: row?.expiresOn, lensCount },
        left: null,
        experienceNote: 'wears since 2019',
      });
    const left = async () => (await world.db.owner<{ count: number }[]>`select count from trial_stock where id = ${row?.trialStockId ?? ''}`)[0]?.count ?? -1;
    const before = await left();
    expect(await give(0)).toMatchObject({ error: { fields: [{ path: ['right', 'lensCount'], code: 'lensCount' }] } });
    expect(await give(before + 2)).toMatchObject({ error: { fields: [{ path: ['right', 'lensCount'], code: 'trialsFewer', data: { left: before + 1 } }] } });
    expect(await left()).toBe(before);
    expect(await give(3)).toMatchObject({ ok: true });
    expect(await left()).toBe(before - 2);
    const given = (await world.record(visitId)).handOvers[0]?.current;
    expect(given?.lensCount).toBe(3);
    // Recorded in error: the two beside the one on the eye lie in the drawer again, once.
    const error = { visitId, kind: 'handOver', factId: given?.id, reason: 'somebody else', value: null };
    await world.must('correct', { ...error, version: await world.version(visitId) });
    expect(await left()).toBe(before);
    expect(await give(4)).toMatchObject({ ok: true });
    expect(await left()).toBe(before - 3);
    const again = (await world.record(visitId)).handOvers.find((c) => c.current)?.current;
    await world.must('undo', { visitId, version: await world.version(visitId), facts: [{ kind: 'handOver', id: again?.id }] });
    expect(await left()).toBe(before);
    expect(
      await world.db.owner`
      select s.id from trial_stock s left join trial_movement m on m.trial_stock_id = s.id group by s.id, s.count having s.count <> coalesce(sum(m.change), 0)`,
    ).toEqual([]);
  });
});

describe('a collection', () => {
  it('is opened and closed by a coordinator; no other visit is', async () => {
    const { coordinator } = world.callers;
    const wearerId = await world.wearerId(3);
    expect(await world.do('openVisit', { wearerId, kind: 'longFollowUp' }, coordinator)).toMatchObject({ error: { kind: 'forbidden' } });
    const { visitId } = await world.must('openVisit', { wearerId, kind: 'collection' }, coordinator);
    expect(await world.do('closeVisit', { visitId, version: 1 }, coordinator)).toMatchObject({ ok: true });
    const other = await world.must('openVisit', { wearerId, kind: 'longFollowUp' });
    expect(await world.do('closeVisit', { visitId: other.visitId, version: 1 }, coordinator)).toMatchObject({ error: { kind: 'forbidden' } });
    expect(await world.do('closeVisit', { visitId: other.visitId, version: 1 })).toMatchObject({ ok: true });
  });
});

describe('while a supplier’s answer is awaited', () => {
  it('the page asks for a number, and nobody’s record is read or audited for it', async () => {
    const visitId = await world.visit(4, { right: '-2.00', left: '-2.25' });
    const prescriptionId = await signPair(world, visitId);
    const { orderId } = await world.must('placeOrder', {
      visitId,
      version: await world.version(visitId),
      requestKey: randomUUID(),
      prescriptionId,
      rightPacks: 1,
      leftPacks: 0,
    });
    const lines = async () => (await world.db.owner<{ n: number }[]>`select count(*)::int as n from audit_log`)[0]?.n;
    const before = await lines();
    expect(await world.must('readOrderEvents', { orderIds: [orderId] })).toEqual({ events: 1 });
    expect(await world.do('readOrderEvents', { orderIds: [orderId, randomUUID()] })).toMatchObject({ error: { kind: 'notFound' } });
    expect(await lines()).toBe(before);
  });
});
