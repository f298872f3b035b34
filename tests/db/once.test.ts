import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect } from '../../src/db/client';
import { QUERIES, SERVICES, type ServiceName } from '../../src/services';
import { signIn } from '../../src/services/session/access';
import type { StaffCaller } from '../../src/services/define';
import { perform } from '../../src/services/perform';
import { blinksAt, openWorld, SENTENCES, spec, type World } from './support';
import { fillDrawer } from '../support/drawer';

let world: World;
beforeAll(async () => {
  world = await openWorld();
});
afterAll(() => world.db.close());

const press = (name: ServiceName, input: unknown, key: string, caller: StaffCaller = world.asha) =>
  perform(SERVICES[name] as never, world.deps, caller, input, key) as Promise<{
    ok: boolean;
    value?: Record<string, string>;
    error?: { kind: string; what?: string };
  }>;
const count = async (table: string): Promise<number> => (await world.db.owner.unsafe<{ n: number }[]>(`select count(*)::int as n from ${table}`))[0]?.n ?? 0;

/** A visit in which everything is there to be signed. */
async function toSign(record: number) {
  await fillDrawer(world.db.owner, 200);
  const visitId = await world.visit(record, { right: '-3.25 -1.75 x 20', left: null });
  const lens = await spec(world, 'plover-30-toric', -3, -1.75, 20);
  await world.must('putOnTrials', { visitId, version: 2, right: lens, left: null });
  const onEye = (await world.record(visitId)).facts.onEye[0]?.rootId ?? '';
  await world.must('recordOnEye', { visitId, version: 3, right: { lensOnEyeId: onEye, fit: 'fits', blinks: blinksAt(10), vertexMm: 12 }, left: null });
  const form = (version: number, change: object = {}) => ({
    visitId,
    version,
    password: 'plain-sight',
    right: { mode: 'final', lens: { ...lens, axis: 30 }, triedLensOnEyeId: onEye },
    left: null,
    expiresOn: '2027-11-24',
    waitNote: 'At sea.',
    daysPerWeek: 7,
    overrides: SENTENCES,
    ...change,
  });
  return { visitId, onEye, form };
}

describe('once means once', () => {
  it('the same press sent twice, one after the other or at once, is done once and answered alike', async () => {
    const before = await count('wearer');
    const input = { name: 'Once Only', birthDate: '1990-01-01' };
    const key = randomUUID();
    const answers = await Promise.all(Array.from({ length: 5 }, () => press('createWearer', input, key)));
    answers.push(await press('createWearer', input, key));
    expect(new Set(answers.map((a) => a.value?.wearerId)).size).toBe(1);
    expect(await count('wearer')).toBe(before + 1);
  });
  it('a press that answers nothing is done once as well', async () => {
    const drawer = await spec(world, 'turnstone-30', -2, 0, 180, 8.4, 14.2);
    const before = await count('trial_movement');
    const key = randomUUID();
    for (let i = 0; i < 2; i++) {
      const done = await press('receiveTrials', { lens: drawer, lot: 'ONCE', expiresOn: '2028-01-01', count: 2, despiteReason: '' }, key);
      expect(done).toEqual({ ok: true, value: null });
    }
    expect(await count('trial_movement')).toBe(before + 1);
  });
  it('a lens, a reading, a lesson: whatever makes something, makes it once', async () => {
    const { visitId } = await toSign(1);
    const key = randomUUID();
    const version = await world.version(visitId);
    const first = await press('takeOff', { visitId, version, lensOnEyeIds: [(await world.record(visitId)).facts.onEye[0]?.rootId] }, key);
    // Sent again with the old version: without its key it would be a conflict.
    const again = await press('takeOff', { visitId, version, lensOnEyeIds: [(await world.record(visitId)).facts.onEye[0]?.rootId] }, key);
    expect(first.ok && again.ok).toBe(true);
    expect(await world.version(visitId)).toBe(version + 1);
  });
  it('a refusal leaves the key free; a key is nobody else’s and of no other command', async () => {
    const key = randomUUID();
    expect((await press('createWearer', { name: '', birthDate: '1990-01-01' }, key)).ok).toBe(false);
    expect((await press('createWearer', { name: 'Later', birthDate: '1990-01-01' }, key)).ok).toBe(true);
    expect(await press('createWearer', { name: 'Later', birthDate: '1990-01-01' }, key, world.callers.coordinator)).toMatchObject({
      ok: false,
      error: { kind: 'conflict', what: 'request' },
    });
    expect(await press('openVisit', { wearerId: await world.wearerId(1), kind: 'firstFit' }, key)).toMatchObject({ ok: false, error: { kind: 'conflict' } });
  });
  it('reading and autosave keep no keys', async () => {
    const before = await count('request_done');
    await press('readToday', {}, randomUUID());
    await press('stillHere', {}, randomUUID());
    expect(await count('request_done')).toBe(before);
    // What is called a query by its name only reads.
    expect(Object.keys(QUERIES).length).toBeGreaterThan(10);
  });
  it('one open visit an appointment: who comes second goes on in it', async () => {
    const [appointment] = await world.db.owner<{ id: string; wearerId: string }[]>`
      select id, wearer_id from appointment where practice_id = ${world.practiceId} and state = 'booked' limit 1`;
    const input = { wearerId: appointment?.wearerId, kind: 'firstFit', appointmentId: appointment?.id };
    const opened = await Promise.all(Array.from({ length: 4 }, () => press('openVisit', input, randomUUID())));
    expect(new Set(opened.map((o) => o.value?.visitId)).size).toBe(1);
  });
  it('one prescription in force for each purpose, however many sign at once', async () => {
    const a = await toSign(3);
    const b = await toSign(3);
    const signed = await Promise.all([press('sign', a.form(4), randomUUID()), press('sign', b.form(4), randomUUID())]);
    expect(signed.every((s) => s.ok)).toBe(true);
    const distance = await press('sign', a.form(5, { purpose: 'distance' }), randomUUID());
    expect(distance.ok).toBe(true);
    const all = (await world.record(a.visitId)).prescriptions;
    const superseded = new Set(all.map((p) => p.supersedesId));
    const open = all.filter((p) => !superseded.has(p.id));
    expect(open.map((p) => p.purpose).sort()).toEqual(['distance', 'everyday']);
    expect(all.filter((p) => p.supersedesId === null)).toHaveLength(2);
  });
  it('the database refuses a second first prescription, and one that supersedes another purpose', async () => {
    const copy = (set: string) =>
      world.db.owner.unsafe(`
      insert into prescription (id, practice_id, number, visit_id, visit_version, wearer_id, examined_on, issued_at, issued_on, expires_on, signed_by, prescriber, days_per_week, settings, rule_version, purpose, supersedes_id)
      select gen_random_uuid(), practice_id, number + 9000, visit_id, visit_version, wearer_id, examined_on, issued_at, issued_on, expires_on, signed_by, prescriber, days_per_week, settings, rule_version, ${set}
      from prescription where purpose = 'everyday' and supersedes_id is not null limit 1`);
    await expect(copy(`'everyday', null`)).rejects.toThrow(/prescription_first/);
    await expect(copy(`'near', supersedes_id`)).rejects.toThrow(/supersedes/);
  });
  it('an older draft is a conflict, not “saved”', async () => {
    const visitId = await world.visit(4);
    const save = (text: string, sequence: number) => world.do('saveDraft', { visitId, step: 'refraction', body: { right: text }, sequence });
    expect((await save('-3', 20)).ok).toBe(true);
    expect(await save('-2', 10)).toMatchObject({ ok: false, error: { kind: 'conflict', what: 'draft' } });
    expect((await world.record(visitId)).drafts[0]?.body).toEqual({ right: '-3' });
    expect((await save('-4', 21)).ok).toBe(true);
  });
  it('a changed identity keeps what it was, who changed it and when', async () => {
    const wearerId = await world.wearerId(5);
    const read = async () =>
      (await world.must('readWearer', { wearerId })) as unknown as { wearer: { name: string; version: number; birthDate: string }; identityChanges: unknown[] };
    const { wearer } = await read();
    await world.must('updateWearer', { wearerId, version: wearer.version, name: 'Renamed Person', birthDate: wearer.birthDate }, world.callers.coordinator);
    expect((await read()).identityChanges).toMatchObject([
      { version: wearer.version, was: { name: wearer.name, birthDate: wearer.birthDate }, changedByName: world.callers.coordinator.name },
    ]);
    await expect(world.db.app`update wearer_identity_change set was = '{}'`).rejects.toThrow(/permission denied/);
  });
});

describe('nothing wedges the server', () => {
  it('eight signatures and recordings at once, with a pool of eight, are all answered', async () => {
    // As the web server has them: a pool of eight, and a small one beside it.
    const sql = connect(world.db.appUrl, { max: 8 });
    const side = connect(world.db.appUrl, { max: 2 });
    const deps = { ...world.deps, sql, side };
    const visits = await Promise.all([6, 7, 8, 9].map((n) => toSign(n)));
    const wearers = await Promise.all([1, 3, 4].map((n) => world.wearerId(n)));
    const run = (name: ServiceName, input: unknown) => perform(SERVICES[name] as never, deps, world.asha, input, randomUUID());
    const mixed = Array.from({ length: 200 }, (_, i) => {
      const v = visits[i % visits.length];
      if (!v) throw new Error('visit');
      switch (i % 8) {
        case 0:
        case 1:
          return run('sign', v.form(4 + (i % 3)));
        case 2:
          return run('recordOnEye', { visitId: v.visitId, version: 4, right: { lensOnEyeId: v.onEye, fit: 'fits', vertexMm: 12 }, left: null });
        case 3:
          return run('readVisit', { visitId: v.visitId });
        case 4:
          return run('saveDraft', { visitId: v.visitId, step: 'onEye', body: { right: String(i) }, sequence: i });
        case 5:
          return run('createWearer', { name: `Crowd ${i}`, birthDate: '1990-01-01' });
        case 6:
          return run('openVisit', { wearerId: wearers[i % wearers.length], kind: 'longFollowUp' });
        default:
          return signIn(deps, { account: 'teo', password: 'nope' }, { address: `a${i}` });
      }
    });
    const wedged = new Promise<'wedged'>((resolve) => setTimeout(() => resolve('wedged'), 90_000).unref());
    const done = await Promise.race([Promise.allSettled(mixed), wedged]);
    expect(done).not.toBe('wedged');
    if (done === 'wedged') return;
    expect(done).toHaveLength(200);
    expect(done.filter((d) => d.status === 'rejected')).toEqual([]);
    // And the pool is free again.
    expect((await perform(SERVICES.readToday, deps, world.asha, {})).ok).toBe(true);
    await sql.end({ timeout: 2 });
    await side.end({ timeout: 2 });
  });
  it('a statement that hangs, a lock that is not given and a transaction left open end by themselves', async () => {
    const [limits] = await world.db.app<{ statement: string; lock: string; idle: string }[]>`
      select current_setting('statement_timeout') as statement, current_setting('lock_timeout') as lock,
        current_setting('idle_in_transaction_session_timeout') as idle`;
    expect(limits).toEqual({ statement: '15s', lock: '5s', idle: '30s' });
    const visitId = await world.visit(1);
    await world.db.owner.begin(async (tx) => {
      await tx`select id from visit where id = ${visitId} for update`;
      await expect(world.do('closeVisit', { visitId, version: 2 })).rejects.toThrow(/lock timeout/);
    });
    expect((await world.do('closeVisit', { visitId, version: 2 })).ok).toBe(true);
  });
});
