import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays, dayIn, eyeRunways, type EyeRunway, type ReorderCall, type ReorderTrade, type WearerFile } from '../../src/core';
import { markNight } from '../../src/db/eyeRunway';
import { renewStale } from '../../src/jobs/renewRunways';
import { TEST_TODAY } from '../support/moment';
import { openWorld, signPair, type World } from './support';

let world: World;
let wearerId: string;
let prescriptionId: string;
let visitId: string;
const DAY = 24 * 3600;
let today = TEST_TODAY;
const pass = (days: number): void => {
  world.move(days * DAY);
  today = addDays(today, days);
};
const desk = () => world.callers.coordinator;
const renewAll = async (): Promise<void> => {
  while ((await renewStale({ sql: world.db.app, clock: world.deps.clock })) > 0);
};
const stale = async (): Promise<number> => (await world.db.owner`select 1 from runway_stale`).length;
const stored = async (id: string): Promise<Omit<EyeRunway, never>[]> =>
  world.db.owner<EyeRunway[]>`
    select eye, prescription_id, lens_id, family_name, modality, pace, expires_on, in_hand_until, run_out, pace_run_out, reorder_by, due_on, later_on, on_the_way, proposed, within
    from eye_runway where practice_id = ${world.practiceId} and of_wearer_id = ${id} order by eye desc`;
/** The pure function on what the wearer's own page reads. */
const reckoned = async (id: string): Promise<readonly EyeRunway[]> => {
  const { file, trade, calls } = (await world.must('readReorder', { wearerId: id }, desk())) as unknown as {
    file: WearerFile;
    trade: Readonly<Record<string, ReorderTrade>>;
    calls: readonly ReorderCall[];
  };
  const last = calls[0] ?? null;
  return eyeRunways({ file, trade, today, marginDays: 7, lastCall: last && { ...last, calledOn: dayIn(last.calledAt, 'America/New_York') } });
};
/** Nothing waits, and what is kept is what the pure function says. */
const agrees = async (): Promise<readonly EyeRunway[]> => {
  expect(await stale()).toBe(0);
  const rows = await reckoned(wearerId);
  expect(await stored(wearerId)).toEqual(rows);
  return rows;
};
const order = (packs: number) =>
  world.must(
    'reorderLenses',
    { wearerId, requestKey: randomUUID(), prescriptionId, rightPacks: packs, leftPacks: packs, noDanger: true, sightSame: true },
    desk(),
  );
const box = (lot: string, packs: number) => ({ lot, expiresOn: '2029-01-31', packs, codes: [], power: null });
const receive = (orderId: string, packs: number) => world.must('recordReceipt', { orderId, right: box('A1', packs), left: box('A2', packs) }, desk());
const handOver = async (orderId: string) => {
  const receipts = await world.db.owner<{ id: string }[]>`
    select r.id from order_receipt r join order_line l on l.id = r.order_line_id where l.order_id = ${orderId}`;
  const of = { orderId, visitId, version: await world.version(visitId), receiptIds: receipts.map((r) => r.id) };
  return world.must('handOverBoxes', { ...of, identityAsked: true, experienceNote: 'worn for years' });
};

beforeAll(async () => {
  world = await openWorld();
  await renewAll();
  wearerId = await world.wearerId(1);
  visitId = await world.visit(1, { right: '-2.00', left: '-2.25' });
  prescriptionId = await signPair(world, visitId);
}, 60_000);
afterAll(() => world.db.close());

describe('how far lenses reach, as it is kept', () => {
  it('is kept by each command that changes it: ordered, received, handed over, lost, told in error, called', async () => {
    expect(await agrees()).toEqual([]);
    const { orderId = '' } = await order(1);
    expect(await agrees()).toMatchObject([{ eye: 'right', onTheWay: 1, inHandUntil: null }, { eye: 'left' }]);
    pass(3);
    await receive(orderId, 1);
    await agrees();
    await handOver(orderId);
    const [given] = await agrees();
    // Six monthlies opened one after another from today on.
    expect(given).toMatchObject({ onTheWay: 0, inHandUntil: addDays(today, 179), runOut: addDays(today, 179), paceRunOut: null });
    pass(40);
    const { lossId = '' } = await world.must('recordLoss', { wearerId, eye: 'right', lenses: 1, why: 'torn', lostOn: today }, desk());
    await expect(agrees()).resolves.toMatchObject([
      { eye: 'right', runOut: addDays(today, 120) },
      { eye: 'left', runOut: addDays(today, 139) },
    ]);
    await world.must('withdrawLoss', { lossId }, desk());
    await world.must('withdrawLoss', { lossId }, desk());
    await expect(agrees()).resolves.toMatchObject([{ runOut: addDays(today, 139) }, { runOut: addDays(today, 139) }]);
    await world.must('recordReorderCall', { wearerId, outcome: 'later', laterOn: '1 Sep 2027' }, desk());
    await expect(agrees()).resolves.toMatchObject([{ dueOn: '2027-09-01', laterOn: '2027-09-01' }, {}]);
  });
  it('what nobody kept waits for the job: a supplier that answers', async () => {
    const { orderId = '' } = await order(1);
    await world.db.owner`
      insert into order_event (id, practice_id, order_id, state, at, supplier_reference, due_on, detail)
      values (${randomUUID()}, ${world.practiceId}, ${orderId}, 'backordered', '2027-01-12T15:00:00Z', 'S-9', ${addDays(today, 200)}, '{}')`;
    expect(await stale()).toBeGreaterThan(0);
    await renewAll();
    const [row] = await agrees();
    // The box comes after the lenses in hand have ended: a gap, and then six months of it.
    expect(row?.runOut).toBe(addDays(today, 200 + 179));
  });
  it('the passing of a day changes what is on its way and overdue, and the night reckons it', async () => {
    await world.db.owner`delete from reorder_call where wearer_id = ${wearerId} and outcome = 'later'`;
    pass(205);
    expect(await stored(wearerId)).not.toEqual(await reckoned(wearerId));
    expect(await markNight(world.db.app, world.practiceId, today)).toBeGreaterThan(0);
    await renewAll();
    await agrees();
    expect(await markNight(world.db.app, world.practiceId, today)).toBe(0);
  });
  it('of the whole practice is what the pure function says', async () => {
    const wearers = await world.db.owner<{ id: string }[]>`select id from wearer where practice_id = ${world.practiceId} and merged_into is null`;
    expect(wearers.length).toBeGreaterThan(5);
    for (const { id } of wearers) expect(await stored(id)).toEqual(await reckoned(id));
  });
  it('a margin that is changed changes every line', async () => {
    const before = await stored(wearerId);
    await world.must('changeSetting', { key: 'reorderMarginDays', value: 14, lastChangeId: null }, world.callers.admin);
    await renewAll();
    expect((await stored(wearerId)).map((r) => r.reorderBy)).toEqual(before.map((r) => addDays(r.reorderBy, -7)));
  });
});

describe('who is due', () => {
  it('the first due first, a page at a time, with what is proposed; a stop says so', async () => {
    // Nobody of this practice is due: rows of some who are.
    await world.db.owner`
      insert into eye_runway (practice_id, of_wearer_id, eye, prescription_id, family_name, expires_on, run_out, reorder_by, due_on, on_the_way, proposed, within, reckoned_on)
      select w.practice_id, w.id, e.eye, gen_random_uuid(), 'Plover', ${addDays(today, 300)}, ${addDays(today, 10)}, ${today}, ${today}::date - (w.record_number % 3), 0, 2, 2, ${today}
      from wearer w, (values ('right'), ('left')) e (eye) where w.practice_id = ${world.practiceId} and w.id <> ${wearerId}`;
    const list = (await world.must('readDue', {}, desk())) as unknown as { wearers: { wearerId: string; dueOn: string }[]; more: boolean; count: number };
    expect(list.wearers.length).toBe(list.count);
    const days = list.wearers.map((w) => w.dueOn);
    expect([...days].sort()).toEqual(days);
    const [first] = list.wearers;
    if (!first) throw new Error('nobody is due');
    const rest = (await world.must('readDue', { after: { dueOn: first.dueOn, wearerId: first.wearerId } }, desk())) as unknown as typeof list;
    expect(rest.wearers.map((w) => w.wearerId)).toEqual(list.wearers.slice(1).map((w) => w.wearerId));
  });
  it('who ran out half a year ago lapsed: the latest first; who wears no more from here is on no list, until they are heard of again', async () => {
    await world.db.owner`
      update eye_runway r set due_on = ${today}::date - 300 - (w.record_number % 5)::int from wearer w where w.id = r.of_wearer_id and w.id <> ${wearerId}`;
    type List = { wearers: { wearerId: string; dueOn: string }[]; count: number };
    const list = (await world.must('readDue', { lapsed: true }, desk())) as unknown as List;
    const days = list.wearers.map((w) => w.dueOn);
    expect(days.length).toBe(list.count);
    expect([...days].sort().reverse()).toEqual(days);
    expect(((await world.must('readDue', {}, desk())) as unknown as List).wearers.map((w) => w.wearerId)).not.toContain(list.wearers[0]?.wearerId);
    const [first] = list.wearers;
    const rest = (await world.must('readDue', { lapsed: true, after: { dueOn: first?.dueOn, wearerId: first?.wearerId } }, desk())) as unknown as List;
    expect(rest.wearers.map((w) => w.wearerId)).toEqual(list.wearers.slice(1).map((w) => w.wearerId));
    await world.must('recordReorderCall', { wearerId, outcome: 'noLonger', laterOn: null, note: 'moved away' }, desk());
    expect(await stored(wearerId)).toEqual([]);
    pass(1);
    await world.must('recordReorderCall', { wearerId, outcome: 'message', laterOn: null, note: 'back in town' }, desk());
    expect(await stored(wearerId)).toHaveLength(2);
  });
  it('is nobody’s business without the right to order', async () => {
    expect(await world.do('readDue', {}, world.callers.admin)).toMatchObject({ ok: false, error: { kind: 'forbidden' } });
  });
});
