import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays } from '../../src/core';
import { reckonTurns } from '../../src/db/figures';
import type { FiguresPage } from '../../src/services/figures/queries';
import { fillDrawer } from '../support/drawer';
import { TEST_TODAY } from '../support/moment';
import { blinksAt, newWearer, openNeighbour, openWorld, SENTENCES, signPair, spec, type World } from './support';

let world: World;
const CODE = 'plover-30-toric';
let today = TEST_TODAY;
const pass = (days: number): void => {
  world.move(days * 86_400);
  today = addDays(today, days);
};
const figures = async (): Promise<FiguresPage> => {
  await reckonTurns(world.db.app, world.practiceId, today);
  return (await world.must('readFigures', {})) as unknown as FiguresPage;
};
let lens: Awaited<ReturnType<typeof spec>>;
beforeAll(async () => {
  world = await openWorld();
  lens = await spec(world, CODE, -3, -1.75, 20);
  await fillDrawer(world.db.owner, 9, { code: CODE });
}, 60_000);
afterAll(() => world.db.close());

/** A toric on a right eye whose mark was read, and the prescription that came of it. @param prescribedAxis of the lens prescribed */
async function fitted(record: number, turn: number, prescribedAxis: number): Promise<string> {
  const visitId = await world.visit(record);
  await world.must('putOnTrials', { visitId, version: 2, right: { ...lens, inHand: null }, left: null });
  const onEye = (await world.record(visitId)).facts.onEye[0]?.rootId ?? '';
  world.move(20 * 60);
  await world.must('recordOnEye', {
    visitId,
    version: await world.version(visitId),
    right: { lensOnEyeId: onEye, fit: 'fits', blinks: blinksAt(turn), overRefraction: '0.00', vertexMm: 12 },
    left: null,
  });
  const { prescriptionId = '' } = await world.must('sign', {
    visitId,
    version: await world.version(visitId),
    password: 'plain-sight',
    right: { mode: 'final', lens: { ...lens, axis: prescribedAxis }, triedLensOnEyeId: onEye },
    left: null,
    expiresOn: addDays(today, 365),
    waitNote: 'x y',
    daysPerWeek: 7,
    overrides: SENTENCES,
  });
  await world.must('closeVisit', { visitId, version: await world.version(visitId) });
  return prescriptionId;
}

describe('figures that feed back', () => {
  it('how marks sit: the mean and the spread over eyes, each by its first whole series; success of the first lens', async () => {
    const before = await figures();
    expect(before.turns.find((t) => t.code === CODE)).toBeUndefined();
    const wearers = [await newWearer(world), await newWearer(world), await newWearer(world)];
    await fitted(wearers[0] ?? 0, 2, 20);
    await fitted(wearers[1] ?? 0, 6, 30);
    await fitted(wearers[2] ?? 0, 10, 10);
    const first = await figures();
    // Mean of 2, 6 and 10; the spread of a sample, with one fewer in the divisor.
    expect(first.turns.find((t) => t.code === CODE)).toMatchObject({ mean: 6, sd: 4, eyes: 3 });
    const family = (page: FiguresPage) => page.firstLens.find((f) => f.code === CODE);
    expect(family(first)).toMatchObject({ eyes: 3, same: 1, family: 3 });
    // Seen again a week later: the eye counts once, by what was read first.
    pass(7);
    await fitted(wearers[0] ?? 0, 14, 20);
    const again = await figures();
    expect(again.turns.find((t) => t.code === CODE)).toMatchObject({ mean: 6, sd: 4, eyes: 3 });
    expect(family(again)).toMatchObject({ eyes: 4, same: 2 });
  });
  it('remakes: another lens within ninety days of the prescription that it replaces', async () => {
    const before = (await figures()).remakes;
    const record = await newWearer(world);
    await fitted(record, 0, 20);
    pass(30);
    await fitted(record, 0, 20);
    expect((await figures()).remakes).toMatchObject({ signed: before.signed + 2, remade: before.remade });
    pass(30);
    await fitted(record, 0, 40);
    expect((await figures()).remakes).toMatchObject({ signed: before.signed + 3, remade: before.remade + 1 });
    pass(100);
    await fitted(record, 0, 50);
    expect((await figures()).remakes).toMatchObject({ signed: before.signed + 4, remade: before.remade + 1 });
  });
  it('punctuality: what came by the day that was promised, and after how many days', async () => {
    const desk = world.callers.coordinator;
    const supplier = 'Harbour Optical Supply';
    const of = async () => (await figures()).punctuality.find((p) => p.supplier === supplier) ?? { orders: 0, inTime: 0 };
    const before = await of();
    const visitId = await world.visit(await newWearer(world), { right: '-2.00', left: '-2.25' });
    const prescriptionId = await signPair(world, visitId, addDays(today, 365));
    const order = async (days: number) => {
      const asked = { requestKey: randomUUID(), prescriptionId, rightPacks: 1, leftPacks: 0 };
      const { orderId = '' } = await world.must('placeOrder', { visitId, version: await world.version(visitId), ...asked });
      await world.db.owner`
        insert into order_event (id, practice_id, order_id, state, at, supplier_reference, due_on, detail)
        values (${randomUUID()}, ${world.practiceId}, ${orderId}, 'acknowledged', ${`${today}T15:00:00Z`}, 'S-1', ${addDays(today, 5)}, '{}')`;
      pass(days);
      await world.must('recordReceipt', { orderId, right: { lot: 'P1', expiresOn: '2030-01-31', packs: 1, codes: [] }, left: null }, desk);
    };
    await order(4);
    expect(await of()).toMatchObject({ orders: before.orders + 1, inTime: before.inTime + 1, medianDays: 4 });
    await order(9);
    expect(await of()).toMatchObject({ orders: before.orders + 2, inTime: before.inTime + 1 });
  });
  it('are of one practice alone', async () => {
    const { caller, practiceId } = await openNeighbour(world);
    await reckonTurns(world.db.app, practiceId, today);
    expect(await world.must('readFigures', {}, caller)).toMatchObject({ turns: [], firstLens: [], punctuality: [] });
  });
});
