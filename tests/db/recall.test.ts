import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LotRecall, RecalledWearer } from '../../src/core';
import { newWearer, openWorld, signPair, spec, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

const desk = () => world.callers.coordinator;
const box = (lot: string) => ({ lot, expiresOn: '2029-01-31', packs: 1, codes: [] });
/** Somebody with an order of which a box an eye lies here. */
async function received(right: string, left: string) {
  const record = await newWearer(world);
  const visitId = await world.visit(record, { right: '-2.00', left: '-2.25' });
  const prescriptionId = await signPair(world, visitId);
  const { orderId = '' } = await world.must('placeOrder', { visitId, version: 3, requestKey: randomUUID(), prescriptionId, rightPacks: 1, leftPacks: 1 });
  await world.must('recordReceipt', { orderId, right: box(right), left: box(left) }, desk());
  const receipts = await world.db.owner<{ id: string; eye: string }[]>`
    select r.id, l.eye from order_receipt r join order_line l on l.id = r.order_line_id where l.order_id = ${orderId} order by l.eye desc`;
  return { record, visitId, orderId, receipts: receipts.map((r) => r.id) };
}
const handOver = async ({ orderId, visitId }: { orderId: string; visitId: string }, receiptIds: readonly string[]) =>
  world.do('handOverBoxes', { orderId, visitId, version: await world.version(visitId), receiptIds, identityAsked: true, experienceNote: 'for years' });
const page = async (recallId: string) =>
  (await world.must('readRecall', { recallId }, desk())) as unknown as {
    recall: LotRecall;
    wearers: RecalledWearer[];
    here: { trials: number; boxes: { packs: number }[] };
  };
const recall = async (lot: string, familyCode: string | null = null) =>
  String((await world.must('openRecall', { lot, familyCode, reason: 'edges tear' }, desk())).recallId);

describe('a lot that is called back', () => {
  it('finds everybody who had it, at home and only tried, and what lies here; no other lot, no other family', async () => {
    const home = await received('BAD1', 'GOOD1');
    await handOver(home, home.receipts);
    const waits = await received(' bad1 ', 'GOOD2');
    const tried = await newWearer(world);
    const visitId = await world.visit(tried, { right: '-2.00', left: null });
    const lens = await spec(world, 'turnstone-30', -2, 0, 180, 8.4, 14.2);
    const inHand = { lot: 'BAD1', expiresOn: '2029-01-31' };
    await world.must('putOnTrials', { visitId, version: 2, right: { ...lens, inHand }, left: null, despiteReason: 'shown to me' });
    const { wearers, here } = await page(await recall('bad1', 'turnstone-30'));
    expect(wearers.map((w) => [w.recordNumber, w.had.map((h) => [h.how, h.eye])])).toEqual([
      [home.record, [['handedOver', 'right']]],
      [tried, [['tried', 'right']]],
    ]);
    expect(here.boxes).toMatchObject([{ packs: 1 }]);
    expect((await page(await recall('BAD1', 'plover-30-toric'))).wearers).toEqual([]);
    expect(await world.do('openRecall', { lot: 'Bad1', familyCode: 'turnstone-30', reason: 'again' }, desk())).toMatchObject({
      error: { fields: [{ path: ['lot'], code: 'recalledAlready' }] },
    });
    // From now on none goes home, none on an eye, and no more of it is received.
    expect(await handOver(waits, [waits.receipts[0] ?? ''])).toMatchObject({ error: { rule: 'lotRecalled' } });
    expect(await handOver(waits, [waits.receipts[1] ?? ''])).toMatchObject({ ok: true });
    const other = await world.visit(await newWearer(world), { right: '-2.00', left: null });
    expect(await world.do('putOnTrials', { visitId: other, version: 2, right: { ...lens, inHand }, left: null, despiteReason: 'shown to me' })).toMatchObject({
      error: { fields: [{ path: ['right', 'inHand', 'lot'], code: 'lotRecalled' }] },
    });
    const more = await received('FINE', 'FINE');
    expect(await world.do('recordReceipt', { orderId: more.orderId, right: box('BAD1'), left: null }, desk())).toMatchObject({ ok: false });
  });
  it('the database itself refuses it, and lets what went home before be corrected', async () => {
    const of = await received('LATE', 'L2');
    const [receipt] = of.receipts;
    await world.must('handOverBoxes', {
      orderId: of.orderId,
      visitId: of.visitId,
      version: await world.version(of.visitId),
      receiptIds: [receipt],
      identityAsked: true,
      experienceNote: 'for years',
    });
    await recall('LATE');
    const [row] = await world.db.owner<Record<string, never>[]>`select * from hand_over where lot = 'LATE' limit 1`;
    await expect(world.db.owner`insert into hand_over ${world.db.owner({ ...row, id: randomUUID(), rootId: randomUUID() } as never)}`).rejects.toThrow(
      /recalled/,
    );
    await world.must('correct', {
      visitId: of.visitId,
      version: await world.version(of.visitId),
      kind: 'handOver',
      factId: row?.['id'],
      reason: 'never left',
      value: null,
    });
  });
  it('is ticked off call by call, and lifted by a prescriber', async () => {
    const home = await received('TICK', 'T2');
    await handOver(home, home.receipts);
    const recallId = await recall('TICK');
    const wearerId = await world.wearerId(home.record);
    const call = (outcome: string) => world.must('recordRecallCall', { recallId, wearerId, outcome, note: '' }, desk());
    await call('notReached');
    await call('stopped');
    expect((await page(recallId)).wearers).toMatchObject([{ outcome: 'stopped', calledByName: desk().name }]);
    expect(await world.do('liftRecall', { recallId, reason: 'free again' }, desk())).toMatchObject({ error: { kind: 'forbidden' } });
    await world.must('liftRecall', { recallId, reason: 'free again' });
    expect(await world.do('liftRecall', { recallId, reason: 'free again' })).toMatchObject({ error: { rule: 'recallLifted' } });
    const next = await received('TICK', 'T3');
    expect(await handOver(next, next.receipts)).toMatchObject({ ok: true });
  });
  it('trial lenses of it are not taken from the drawer', async () => {
    const lens = await spec(world, 'turnstone-30', -2.5, 0, 180, 8.4, 14.2);
    await world.must('receiveTrials', { lens, lot: 'DRAW', expiresOn: '2026-12-20', count: 3, despiteReason: '' }, world.callers.technician);
    const put = async () => {
      const visitId = await world.visit(await newWearer(world), { right: '-2.50', left: null });
      return world.do('putOnTrials', { visitId, version: 2, right: { ...lens, inHand: null }, left: null, despiteReason: 'shown to me' });
    };
    expect(await put()).toMatchObject({ ok: true });
    const recallId = await recall('draw');
    expect((await page(recallId)).here.trials).toBe(2);
    // The other lots of the drawer are used; of this one nothing more.
    await put();
    expect((await page(recallId)).here.trials).toBe(2);
  });
});
