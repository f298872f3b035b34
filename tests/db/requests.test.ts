import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { provenance, type WearerFile } from '../../src/core';
import { openNeighbour, openWorld, signPair, type World } from './support';

let world: World;
let wearerId: string;
beforeAll(async () => {
  world = await openWorld();
  const visitId = await world.visit(1, { right: '-2.00', left: '-2.25' });
  await signPair(world, visitId);
  wearerId = await world.wearerId(1);
}, 60_000);
afterAll(() => world.db.close());
beforeEach(async () => {
  await world.db.owner`delete from request_answer`;
  await world.db.owner`delete from request_wearer`;
  await world.db.owner`delete from request`;
  await world.db.owner`delete from task_event where task_id in (select id from task where because = 'request')`;
  await world.db.owner`delete from task where because = 'request'`;
});

interface Lens {
  readonly power: { readonly sphere: number; readonly cylinder: number; readonly axis: number };
  readonly maker: string;
  readonly familyName: string;
  readonly baseCurveMm: number;
  readonly diameterMm: number;
}
interface Shown {
  readonly id: string;
  readonly wearerId: string | null;
  readonly profile: string;
  readonly usualAt: string | null;
  readonly earliestAt: string | null;
  readonly answer: string | null;
  readonly answers: number;
  readonly compared: {
    readonly proposed: string;
    readonly because: string;
    readonly missing: readonly string[];
    readonly differences: readonly object[];
    readonly prescription: { readonly eyes: Readonly<Record<'right' | 'left', Lens | null>> } | null;
  };
}
const shown = async (): Promise<Shown[]> => ((await world.must('readRequests', {})) as unknown as { requests: Shown[] }).requests;
const one = async (id: string): Promise<Shown> => {
  const found = (await shown()).find((r) => r.id === id);
  if (!found) throw new Error('no such request');
  return found;
};
const REQUEST = {
  sellerName: 'Quayside Lenses',
  sellerContact: 'fax 0555 0199',
  wearerName: 'Somebody',
  wearerAddress: '3 Ropewalk',
  askedOn: '23 Nov 2026',
  receivedOn: '24 Nov 2026',
  receivedTime: '9:30',
  right: null,
  left: null,
};
const record = (change: object = {}, caller = world.callers.coordinator) => world.do('recordRequest', { ...REQUEST, ...change }, caller);
const kept = async (change: object = {}): Promise<string> => {
  const done = (await record(change)) as unknown as { ok: boolean; value: { requestId: string } };
  expect(done.ok, JSON.stringify(done)).toBe(true);
  return done.value.requestId;
};
/** The prescribed lens of an eye, as a seller would ask for it. */
async function asPrescribed(eye: 'right' | 'left', change: object = {}): Promise<object> {
  const probe = await kept({ wearerId });
  const lens = (await one(probe)).compared.prescription?.eyes[eye];
  await world.db.owner`delete from request_wearer where request_id = ${probe}`;
  await world.db.owner`delete from request where id = ${probe}`;
  const { sphere = 0, cylinder = 0, axis = 180 } = lens?.power ?? {};
  const power = cylinder === 0 ? sphere.toFixed(2) : `${sphere.toFixed(2)}/${cylinder.toFixed(2)}x${axis}`;
  return { power, lensName: lens?.familyName, baseCurveMm: lens?.baseCurveMm, diameterMm: lens?.diameterMm, boxes: 2, ...change };
}
const answer = async (requestId: string, given: string, change: object = {}, caller = world.asha) =>
  world.do('answerRequest', { requestId, seen: (await one(requestId)).answers, answer: given, reason: '', ...change }, caller);

/** The practice changes its rules, knowing what they were. */
async function setProfile(value: 'us' | 'generic'): Promise<void> {
  const [last] = await world.db.owner<{ id: string }[]>`select id from practice_setting where key = 'ruleProfile' order by set_at desc limit 1`;
  await world.must('changeSetting', { key: 'ruleProfile', value, lastChangeId: last?.id ?? null }, world.callers.admin);
  world.move(1);
}

describe('a request as it came', () => {
  it('is kept with the deadlines that hold then: by the practice’s own hours, or by the US rules with its Saturdays', async () => {
    const generic = await one(await kept());
    expect(generic).toMatchObject({ profile: 'generic', usualAt: generic.earliestAt });
    await setProfile('us');
    const us = await one(await kept());
    expect(us.profile).toBe('us');
    expect((us.earliestAt ?? '') <= (us.usualAt ?? '')).toBe(true);
    await setProfile('generic');
    // What was kept keeps its deadline, whatever is set later.
    expect(await one(us.id)).toMatchObject({ profile: 'us', earliestAt: us.earliestAt });
  });
  it('what it lacks is named; a day where a number belongs, a time to come and paper of last month are refused at their fields', async () => {
    expect((await one(await kept({ wearerAddress: '', askedOn: '' }))).compared.missing).toEqual(['wearerAddress', 'askedOn', 'eyes']);
    expect(await record({ sellerContact: '12/11/2026' })).toMatchObject({ error: { fields: [{ path: ['sellerContact'], code: 'contactIsADay' }] } });
    expect(await record({ sellerContact: 'ask Jo' })).toMatchObject({ error: { fields: [{ path: ['sellerContact'], code: 'contactNotReachable' }] } });
    expect(await record({ receivedTime: '23:50' })).toMatchObject({ error: { fields: [{ path: ['receivedTime'], code: 'receivedInFuture' }] } });
    expect(await record({ receivedOn: '1 Oct 2026' })).toMatchObject({ error: { fields: [{ path: ['receivedOn'], code: 'receivedLongAgo' }] } });
    expect(await record({ sellerName: '', sellerContact: '' })).toMatchObject({ error: { fields: [{ path: ['sellerName'], code: 'sellerRequired' }] } });
    expect(await record({ right: { power: 'strong', lensName: 'x', baseCurveMm: 8.6, diameterMm: 14.2, boxes: 1 } })).toMatchObject({
      error: { fields: [{ path: ['right', 'power'] }] },
    });
  });
  it('nobody knows whose it is: said so, until somebody finds the wearer', async () => {
    const id = await kept();
    expect((await one(id)).compared).toMatchObject({ because: 'noWearer', proposed: 'invalid' });
    expect(await world.do('matchRequest', { requestId: id, wearerId: randomUUID() })).toMatchObject({ error: { kind: 'notFound' } });
    await world.must('matchRequest', { requestId: id, wearerId }, world.callers.coordinator);
    expect(await one(id)).toMatchObject({ wearerId });
  });
  it('one line stands on Today while any waits, and is done with the last', async () => {
    const tasks = () => world.db.owner<{ done: boolean }[]>`select done_at is not null as done from task where because = 'request'`;
    const first = await kept();
    const second = await kept();
    expect(await tasks()).toEqual([{ done: false }]);
    await answer(first, 'invalid', { reason: 'nobody here' });
    expect(await tasks()).toEqual([{ done: false }]);
    await answer(second, 'invalid', { reason: 'nobody here' });
    expect(await tasks()).toEqual([{ done: true }]);
  });
});

describe('the answer', () => {
  it('the same lens is correct: anybody at the desk may say so, as proposed', async () => {
    const id = await kept({ wearerId, right: await asPrescribed('right'), left: await asPrescribed('left') });
    expect((await one(id)).compared).toMatchObject({ proposed: 'correct', differences: [], missing: [] });
    expect(await answer(id, 'correct', {}, world.callers.coordinator)).toMatchObject({ ok: true });
    expect(await one(id)).toMatchObject({ answer: 'correct', answers: 1 });
  });
  it('what was verified is evidence of what is worn; taken back, it is none', async () => {
    const id = await kept({ wearerId, right: await asPrescribed('right'), left: null });
    const worn = async () => provenance((await world.must('readWearer', { wearerId })) as unknown as WearerFile, 'right').nodes.sellerVerified;
    expect(await worn()).toBeNull();
    expect(await answer(id, 'correct', { reason: 'one eye asked' })).toMatchObject({ ok: true });
    const file = (await world.must('readWearer', { wearerId })) as unknown as WearerFile;
    expect(file.lenses[(await worn())?.lensId ?? '']).toMatchObject({ sphereD: -2 });
    expect(await answer(id, 'invalid', { reason: 'quantity was missing' })).toMatchObject({ ok: true });
    expect(await worn()).toBeNull();
  });
  it('another power is corrected, by a prescriber; what differed is kept beside the answer', async () => {
    const id = await kept({ wearerId, right: await asPrescribed('right', { power: '-9.00' }), left: null });
    expect((await one(id)).compared.proposed).toBe('corrected');
    expect(await answer(id, 'corrected', {}, world.callers.coordinator)).toMatchObject({ error: { kind: 'forbidden' } });
    expect(await answer(id, 'corrected')).toMatchObject({ ok: true });
    const [row] = await world.db.owner<
      { differences: object[]; prescriptionId: string }[]
    >`select differences, prescription_id from request_answer where request_id = ${id}`;
    expect(row?.differences).toMatchObject([{ eye: 'right', field: 'power', asked: '−9.00' }]);
    expect(row?.prescriptionId).not.toBeNull();
  });
  it('otherwise than proposed says why; invalid always does; what is not prescribed cannot be confirmed', async () => {
    const id = await kept({ wearerId, right: await asPrescribed('right', { power: '-9.00' }), left: null });
    expect(await answer(id, 'correct')).toMatchObject({ error: { fields: [{ path: ['reason'], code: 'otherwiseReason' }] } });
    expect(await answer(id, 'invalid')).toMatchObject({ error: { fields: [{ path: ['reason'], code: 'invalidReason' }] } });
    const nobody = await kept();
    expect(await answer(nobody, 'correct', { reason: 'knows him' })).toMatchObject({ error: { fields: [{ path: ['answer'], code: 'nothingInForce' }] } });
  });
  it('after its end it is expired', async () => {
    const right = await asPrescribed('right');
    world.move(3 * 365 * 24 * 3600);
    const id = await kept({ wearerId, right, left: null, receivedOn: '23 Nov 2029', receivedTime: '8:00', askedOn: '22 Nov 2029' });
    expect((await one(id)).compared.proposed).toBe('expired');
    expect(await answer(id, 'expired', {}, world.callers.coordinator)).toMatchObject({ ok: true });
    world.move(-3 * 365 * 24 * 3600);
  });
  it('two people at once: the second is told; answered again stands beside the first, which stays', async () => {
    const id = await kept();
    const give = (seen: number, reason: string) => world.do('answerRequest', { requestId: id, seen, answer: 'invalid', reason });
    const both = await Promise.all([give(0, 'not ours'), give(0, 'nobody here')]);
    expect(both.filter((r) => r.ok)).toHaveLength(1);
    expect(both.find((r) => !r.ok)).toMatchObject({ error: { kind: 'conflict' } });
    expect(await give(1, 'on second thoughts')).toMatchObject({ ok: true });
    const rows = await world.db.owner<{ place: number }[]>`select place from request_answer where request_id = ${id} order by place`;
    expect(rows.map((r) => r.place)).toEqual([1, 2]);
    expect(await world.do('matchRequest', { requestId: id, wearerId })).toMatchObject({ error: { rule: 'requestAnswered' } });
  });
  it('the application can neither change nor remove what came and what was answered', async () => {
    const id = await kept();
    for (const table of ['request', 'request_answer', 'request_wearer']) {
      await expect(world.db.app.unsafe(`delete from ${table}`), table).rejects.toThrow(/permission denied/);
    }
    await expect(world.db.app`update request set seller_name = 'x' where id = ${id}`).rejects.toThrow(/permission denied/);
  });
  it('another practice sees none of it', async () => {
    const id = await kept();
    const neighbour = await openNeighbour(world);
    expect(((await world.must('readRequests', {}, neighbour.caller)) as unknown as { requests: Shown[] }).requests).toEqual([]);
    expect(await world.do('answerRequest', { requestId: id, seen: 0, answer: 'invalid', reason: 'theirs' }, neighbour.caller)).toMatchObject({
      error: { kind: 'notFound' },
    });
  });
});
