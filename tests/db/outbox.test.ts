import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays, type OutboxMessage } from '../../src/core';
import { writeReminders } from '../../src/jobs/writeReminders';
import { TEST_NOW, TEST_TODAY } from '../support/moment';
import { newWearer, openWorld, signPair, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

const desk = () => world.callers.coordinator;
const box = (lot: string) => ({ lot, expiresOn: '2029-01-31', packs: 1, codes: [] });
const agree = async (record: number, way = 'text', recipient = '555 0123') =>
  world.do('chooseContact', { wearerId: await world.wearerId(record), way, recipient }, desk());
const outbox = async () => ((await world.must('readOutbox', {}, desk())) as unknown as { waiting: OutboxMessage[] }).waiting;
const of = async (record: number) => {
  const id = await world.wearerId(record);
  return (await outbox()).filter((m) => m.wearerId === id);
};
/** An order of a box an eye, whole here. */
async function received(record: number): Promise<string> {
  const visitId = await world.visit(record, { right: '-2.00', left: '-2.25' });
  const prescriptionId = await signPair(world, visitId);
  const { orderId = '' } = await world.must('placeOrder', { visitId, version: 3, requestKey: randomUUID(), prescriptionId, rightPacks: 1, leftPacks: 1 });
  await world.must('recordReceipt', { orderId, right: box('A'), left: null }, desk());
  expect(await of(record)).toEqual([]);
  await world.must('recordReceipt', { orderId, right: null, left: box('B') }, desk());
  return orderId;
}

describe('whether somebody may be written to', () => {
  it('is asked, and kept with an address that can be one', async () => {
    const record = await newWearer(world);
    expect(await agree(record, 'mail', 'not an address')).toMatchObject({ error: { fields: [{ path: ['recipient'], code: 'mailWrong' }] } });
    expect(await agree(record, 'text', 'call me')).toMatchObject({ error: { fields: [{ path: ['recipient'], code: 'telephoneWrong' }] } });
    expect(await agree(record, 'text', '')).toMatchObject({ error: { fields: [{ path: ['recipient'], code: 'required' }] } });
    expect(await agree(record, 'mail', 'nessa@quillby.example')).toMatchObject({ ok: true });
    expect(await agree(record, 'none', 'x')).toMatchObject({ ok: true });
  });
  it('nobody is written to who did not agree', async () => {
    const silent = await newWearer(world);
    await received(silent);
    expect(await of(silent)).toEqual([]);
    const refuses = await newWearer(world);
    await agree(refuses, 'none');
    await received(refuses);
    expect(await of(refuses)).toEqual([]);
  });
});

describe('the outbox', () => {
  it('says once that boxes are here, when the last of them came; nothing leaves by itself', async () => {
    const record = await newWearer(world);
    await agree(record);
    await received(record);
    const [message, ...more] = await of(record);
    expect(more).toEqual([]);
    expect(message).toMatchObject({ way: 'text', recipient: '555 0123', data: { kind: 'boxesHere' }, doneAt: null });
    const mark = (sent: boolean) => world.do('markMessage', { messageId: message?.id, sent }, desk());
    expect(await mark(true)).toMatchObject({ ok: true });
    expect(await mark(false)).toMatchObject({ error: { rule: 'messageDone' } });
    expect(await of(record)).toEqual([]);
  });
  it('keeps the hours in which nobody is written to, and a change of mind', async () => {
    const record = await newWearer(world);
    await agree(record);
    // Half past eleven at night at the practice.
    world.move(12 * 3600 + 1800);
    await received(record);
    const [message] = await of(record);
    const mark = () => world.do('markMessage', { messageId: message?.id, sent: true }, desk());
    expect(await mark()).toMatchObject({ error: { rule: 'quietHours' } });
    world.move(12 * 3600);
    await agree(record, 'none', '');
    expect(await mark()).toMatchObject({ error: { rule: 'contactRefused' } });
    await agree(record);
    expect(await mark()).toMatchObject({ ok: true });
    world.move(-24 * 3600 - 1800);
  });
  it('a day’s reminders: who runs low, who comes in two days; each once, however often it is asked', async () => {
    const low = await newWearer(world);
    const comes = await newWearer(world);
    const stopped = await newWearer(world);
    for (const record of [low, comes, stopped]) await agree(record);
    await world.db.owner`
      insert into eye_runway (practice_id, of_wearer_id, eye, prescription_id, family_name, expires_on, run_out, reorder_by, due_on, on_the_way, proposed, within, reckoned_on)
      select w.practice_id, w.id, e.eye, gen_random_uuid(), 'Plover', ${addDays(TEST_TODAY, 200)}, ${addDays(TEST_TODAY, 10)}, ${TEST_TODAY}, ${TEST_TODAY}, 0, 2, 2, ${TEST_TODAY}
      from wearer w, (values ('right'), ('left')) e (eye) where w.practice_id = ${world.practiceId} and w.record_number in ${world.db.owner([low, stopped])}`;
    const red = await world.visit(stopped, { right: '-2.00', left: null });
    await world
      .must('recordFindings', { visitId: red, version: await world.version(red), findings: [{ eye: 'right', sign: 'infiltrates', word: 'active' }] })
      .catch(() => undefined);
    const place = { day: addDays(TEST_TODAY, 2), time: '10:00', chairMinutes: 30, staffMinutes: 20, roomId: null, staffId: null, despite: '' };
    await world.must('bookAppointment', { wearerId: await world.wearerId(comes), kind: 'longFollowUp', note: '', ...place }, desk());
    const first = await writeReminders(world.db.app, world.practiceId, TEST_NOW);
    expect(first.appointments).toBe(1);
    expect(first.reorders).toBeGreaterThanOrEqual(1);
    expect(await writeReminders(world.db.app, world.practiceId, TEST_NOW)).toEqual({ reorders: 0, appointments: 0 });
    expect(await of(low)).toMatchObject([{ data: { kind: 'reorderDue', runOut: addDays(TEST_TODAY, 10), eyes: ['right', 'left'] } }]);
    const [reminder] = await of(comes);
    expect(reminder?.data).toMatchObject({ kind: 'appointment', visit: 'longFollowUp', minutes: 30, startsAt: '2026-11-26T15:00:00.000Z' });
    // Written by hand as well, it is the same message.
    expect(await world.do('writeReminder', { wearerId: await world.wearerId(low) }, desk())).toMatchObject({ error: { rule: 'messageWritten' } });
  });
  it('a recalled lot is told to everybody who had it and agreed', async () => {
    const record = await newWearer(world);
    await agree(record);
    const orderId = await received(record);
    const receipts = await world.db.owner<
      { id: string }[]
    >`select r.id from order_receipt r join order_line l on l.id = r.order_line_id where l.order_id = ${orderId}`;
    const [visit] = await world.db.owner<{ id: string }[]>`select visit_id as id from lens_order where id = ${orderId}`;
    const visitId = visit?.id ?? '';
    await world.must('handOverBoxes', {
      orderId,
      visitId,
      version: await world.version(visitId),
      receiptIds: receipts.map((r) => r.id),
      identityAsked: true,
      experienceNote: 'for years',
    });
    const { recallId } = await world.must('openRecall', { lot: 'A', familyCode: null, reason: 'edges tear' }, desk());
    expect(await world.must('writeRecallMessages', { recallId }, desk())).toMatchObject({ written: 1 });
    expect(await world.must('writeRecallMessages', { recallId }, desk())).toMatchObject({ written: 0 });
    expect((await of(record)).map((m) => m.data.kind)).toContain('lotRecalled');
  });
});
