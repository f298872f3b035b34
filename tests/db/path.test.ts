import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { careTopicsFor, turnHistory } from '../../src/core';
import { momentOf } from '../../src/services/appointment/moments';
import { finishLesson, blinksAt, openWorld, SENTENCES, spec, type World } from './support';
import { fillDrawer } from '../support/drawer';

let world: World;
beforeAll(async () => {
  world = await openWorld();
});
afterAll(() => world.db.close());

const note = 'Worn soft lenses before; at sea from 2 December.';

/** A visit with a trial on the right eye that was read: mark 10 left, and an over-refraction. */
async function readVisit(over: string, record = 1): Promise<{ visitId: string; onEye: string; version: number; lens: Awaited<ReturnType<typeof spec>> }> {
  await topUp();
  const visitId = await world.visit(record, { right: '-3.25 -1.75 x 20', left: null });
  const lens = await spec(world, 'plover-30-toric', -3, -1.75, 20);
  await world.must('putOnTrials', { visitId, version: 2, right: lens, left: null });
  const onEye = (await world.record(visitId)).facts.onEye[0]?.rootId ?? '';
  await world.must('recordOnEye', {
    visitId,
    version: 3,
    right: { lensOnEyeId: onEye, fit: 'fits', blinks: blinksAt(10), overRefraction: over, vertexMm: 12, sureOfLens: true },
    left: null,
  });
  return { visitId, onEye, version: 4, lens };
}
const signing = (v: Awaited<ReturnType<typeof readVisit>>, change: Record<string, unknown> = {}) => ({
  visitId: v.visitId,
  version: v.version,
  password: 'plain-sight',
  right: { mode: 'final', lens: { ...v.lens, axis: 30 }, triedLensOnEyeId: v.onEye },
  left: null,
  expiresOn: '24 Nov 2027',
  waitNote: note,
  daysPerWeek: 7,
  overrides: SENTENCES,
  ...change,
});
const topUp = () => fillDrawer(world.db.owner, 50);

describe('signing', () => {
  it('writes number, issue and expiry, the prescriber, and the settings it was made under', async () => {
    const v = await readVisit('+0.25 -0.50 x 70');
    const { number } = await world.must('sign', signing(v));
    const [signed] = (await world.record(v.visitId)).prescriptions;
    expect(signed).toMatchObject({
      number,
      issuedOn: '2026-11-24',
      examinedOn: '2026-11-24',
      expiresOn: '2027-11-24',
      waitNote: note,
      prescriber: { name: 'Asha Penhallow', registerNumber: 'FQ 2231', telephone: '555 0100' },
    });
    expect(signed?.eyes[0]).toMatchObject({ eye: 'right', baseCurveTriedMm: 8.6, baseCurveOrderedMm: 8.6 });
    expect(signed?.eyes[0]?.working).toMatchObject({ basis: 'overRefraction', order: '−3.09 −1.56 × 28', gap: '0.0734' });
    const [row] = await world.db.owner<
      { settings: { readerNoiseDegrees: number }; ruleVersion: string }[]
    >`select settings, rule_version from prescription where id = ${signed?.id ?? ''}`;
    expect(row?.settings.readerNoiseDegrees).toBe(2);
    expect(row?.ruleVersion).toMatch(/^\d{4}-/);
  });
  it('is refused while the two routes disagree', async () => {
    const v = await readVisit('-0.75 -0.75 x 160', 3);
    expect(await world.do('sign', signing(v))).toMatchObject({ ok: false, error: { kind: 'ruleBroken', rule: 'measureAgain', data: { eye: 'right' } } });
  });
  it('asks the password again, and why it need not wait; nothing is half-signed', async () => {
    const v = await readVisit('+0.25 -0.50 x 70', 4);
    expect(await world.do('sign', signing(v, { password: 'wrong' }))).toMatchObject({ error: { fields: [{ path: ['password'], code: 'passwordWrong' }] } });
    expect(await world.do('sign', signing(v, { waitNote: '  ' }))).toMatchObject({ error: { fields: [{ path: ['waitNote'], code: 'waitNoteRequired' }] } });
    expect(await world.do('sign', signing(v, { expiresOn: '2026-11-24' }))).toMatchObject({
      error: { fields: [{ path: ['expiresOn'], code: 'expiryNotAfterIssue' }] },
    });
    expect(await world.do('sign', signing(v, { expiresOn: '2031-01-01' }))).toMatchObject({ error: { fields: [{ code: 'expiryTooFar' }] } });
    expect(await world.do('sign', signing(v, { right: null }))).toMatchObject({ error: { fields: [{ code: 'oneEyeRequired' }] } });
    expect(await world.version(v.visitId)).toBe(4);
    expect((await world.record(v.visitId)).prescriptions).toEqual([]);
  });
  it('makes the sixth wrong password wait, though the refusals left nothing else behind', async () => {
    const v = await readVisit('+0.25 -0.50 x 70', 5);
    world.move(5);
    for (let i = 0; i < 5; i++) await world.do('sign', signing(v, { password: 'wrong' }));
    expect(await world.do('sign', signing(v))).toMatchObject({ ok: false, error: { kind: 'throttled' } });
    world.move(301);
    expect((await world.do('sign', signing(v))).ok).toBe(true);
  });
  it('a new one supersedes, the old one stays; only one can supersede it', async () => {
    const v = await readVisit('+0.25 -0.50 x 70', 6);
    const first = await world.must('sign', signing(v));
    await world.must('sign', signing(v, { version: v.version + 1 }));
    const all = (await world.record(v.visitId)).prescriptions;
    expect(all).toHaveLength(2);
    expect(all[0]?.supersedesId).toBe(first.prescriptionId);
  });
  it('aftercare needs no note', async () => {
    await topUp();
    const visitId = await world.visit(7, { right: '-2.00', left: null }, 'longFollowUp');
    const lens = await spec(world, 'turnstone-30', -2, 0, 180, 8.4, 14.2);
    expect(
      (
        await world.do('sign', {
          visitId,
          version: 2,
          password: 'plain-sight',
          right: { mode: 'final', lens, triedLensOnEyeId: null },
          left: null,
          expiresOn: '2027-11-24',
          daysPerWeek: 7,
          overrides: SENTENCES,
        })
      ).ok,
    ).toBe(true);
  });
});

describe('lesson and hand-over', () => {
  it('no lens goes home before the sign-off; the sign-off stays locked until everything is there', async () => {
    const v = await readVisit('+0.25 -0.50 x 70', 8);
    let { version } = v;
    const box = { lensOnEyeId: v.onEye, lot: 'P2181', expiresOn: '1 Jan 2028' };
    const next = async (name: 'recordAttempt' | 'recordTopic', input: object): Promise<void> => {
      ({ version } = (await world.must(name, { visitId: v.visitId, version, ...input })) as unknown as { version: number });
    };
    expect(await world.do('handOver', { visitId: v.visitId, version, right: box, left: null })).toMatchObject({ error: { rule: 'signOffNeeded' } });
    const { lessonId } = await world.must('startLesson', { visitId: v.visitId, version });
    version += 1;
    expect(await world.do('recordAttempt', { visitId: v.visitId, version, lessonId, eye: 'right', move: 'on', worked: true, miss: null })).toMatchObject({
      error: { rule: 'lensAlreadyOn' },
    });
    expect(await world.do('recordAttempt', { visitId: v.visitId, version, lessonId, eye: 'left', move: 'on', worked: true, miss: null })).toMatchObject({
      error: { rule: 'eyeNotTaught' },
    });
    for (const move of ['off', 'on', 'off'] as const) await next('recordAttempt', { lessonId, eye: 'right', move, worked: true, miss: null });
    await next('recordAttempt', { lessonId, eye: 'right', move: 'on', worked: false, miss: 'blinked' });
    await next('recordAttempt', { lessonId, eye: 'right', move: 'on', worked: true, unaided: false, miss: null });
    expect(await world.do('signOffLesson', { visitId: v.visitId, version, lessonId })).toMatchObject({
      error: { rule: 'lessonLocked', data: { missing: 19 } },
    });
    for (const move of ['off', 'on'] as const) await next('recordAttempt', { lessonId, eye: 'right', move, worked: true, miss: null });
    for (const topic of careTopicsFor({ singleUse: false })) await next('recordTopic', { lessonId, topic });
    await finishLesson(world, v.visitId, lessonId, ['right']);
    version = await world.version(v.visitId);
    await world.must('signOffLesson', { visitId: v.visitId, version, lessonId, unbookedReason: 'books at the desk' }, world.callers.technician);
    version += 1;
    expect(await world.do('handOver', { visitId: v.visitId, version, right: { ...box, expiresOn: '2026-11-23' }, left: null })).toMatchObject({
      error: { fields: [{ path: ['right', 'expiresOn'], code: 'lensExpired' }] },
    });
    expect(await world.do('handOver', { visitId: v.visitId, version, right: { ...box, lot: ' ' }, left: null })).toMatchObject({
      error: { fields: [{ path: ['right', 'lot'], code: 'lotRequired' }] },
    });
    expect(await world.do('handOver', { visitId: v.visitId, version, right: null, left: box })).toMatchObject({
      error: { fields: [{ path: ['left', 'lensOnEyeId'], code: 'otherEye' }] },
    });
    await world.must('handOver', { visitId: v.visitId, version, right: box, left: null });
    version += 1;
    expect(await world.do('handOver', { visitId: v.visitId, version, right: box, left: null })).toMatchObject({ error: { rule: 'handedOverAlready' } });
    const { handOvers } = await world.record(v.visitId);
    expect(handOvers[0]?.current).toMatchObject({ lot: 'P2181', expiresOn: '2028-01-01', openedOn: '2026-11-24', source: 'trial' });
    const [recall] = await world.db.owner<{ n: number }[]>`select count(*)::int as n from hand_over where lot = 'P2181'`;
    expect(recall?.n).toBe(1);
  });
  it('counts and topics carry over to another day, but one on and one off must succeed that day', async () => {
    const v = await readVisit('+0.25 -0.50 x 70', 9);
    const { lessonId } = await world.must('startLesson', { visitId: v.visitId, version: v.version });
    let version = v.version + 1;
    for (const move of ['off', 'on', 'off', 'on'] as const)
      version = (
        (await world.must('recordAttempt', { visitId: v.visitId, version, lessonId, eye: 'right', move, worked: true, miss: null })) as unknown as {
          version: number;
        }
      ).version;
    for (const topic of careTopicsFor({ singleUse: false }))
      version = ((await world.must('recordTopic', { visitId: v.visitId, version, lessonId, topic })) as unknown as { version: number }).version;
    await world.must('closeVisit', { visitId: v.visitId, version });
    world.move(24 * 3600);
    const { visitId = '' } = await world.must('openVisit', { wearerId: await world.wearerId(9), kind: 'lesson' });
    const second = await world.must('startLesson', { visitId, version: 1 });
    const refused = await world.do('signOffLesson', { visitId, version: 2, lessonId: second.lessonId });
    expect(refused).toMatchObject({ error: { rule: 'lessonLocked', data: { missing: 8 } } });
    await world.must('recordAttempt', { visitId, version: 2, lessonId: second.lessonId, eye: 'right', move: 'on', worked: true, miss: null });
    await finishLesson(world, visitId, second.lessonId, ['right']);
    const at = async () => ({ visitId, version: await world.version(visitId), lessonId: second.lessonId });
    await world.must('recordAttempt', { ...(await at()), eye: 'right', move: 'off', worked: true, miss: null });
    await world.must('signOffLesson', { ...(await at()), unbookedReason: 'books at the desk' });
    world.move(-24 * 3600);
  });
  it('a minor without a guardian on the record is not taught', async () => {
    await world.db.owner`update wearer_identity set guardian = null where name = 'Caspian Udell'`;
    const visitId = await world.visit(2, { right: '-2.00', left: null });
    const lens = await spec(world, 'dunlin-1-day', -2, 0, 180, 8.5, 14.2);
    expect(await world.do('putOnTrials', { visitId, version: 2, right: lens, left: null })).toMatchObject({ error: { rule: 'stopWaits' } });
    // A prescriber may try a lens with a reason; taught is nobody without a guardian.
    await world.must('overrideStop', { visitId, version: 2, rule: 'minorWithoutGuardian', reason: 'aunt on her way' });
    await world.must('putOnTrials', { visitId, version: 3, right: lens, left: null });
    expect(await world.do('startLesson', { visitId, version: 4 })).toMatchObject({ error: { rule: 'guardianNeeded' } });
  });
  it('a lens that was brought in is not handed over; one who handles lenses already is noted instead', async () => {
    const visitId = await world.visit(1, { right: '-2.00', left: '-2.00' });
    await world.must('recordBroughtIn', { visitId, version: 2, eye: 'right', description: 'Heron 30', power: '-2.00', how: 'boxSeen' });
    await world.must('putOnTrials', { visitId, version: 3, right: null, left: await spec(world, 'turnstone-30', -2, 0, 180, 8.4, 14.2) });
    const facts = (await world.record(visitId)).facts.onEye;
    const [right, left] = ['right', 'left'].map((eye) => facts.find((c) => c.current?.eye === eye)?.rootId);
    const box = (lensOnEyeId: string | undefined) => ({ lensOnEyeId, lot: 'T1', expiresOn: '2028-01-01' });
    expect(await world.do('handOver', { visitId, version: 4, right: box(right), left: null, experienceNote: 'wears since 2019' })).toMatchObject({
      error: { fields: [{ code: 'broughtInNotGiven' }] },
    });
    await world.must('handOver', { visitId, version: 4, right: null, left: box(left), experienceNote: 'wears since 2019' });
  });
});

describe('ordering', () => {
  it('the same press twice is one order; past the expiry, superseded, unprescribed eyes are refused', async () => {
    const v = await readVisit('+0.25 -0.50 x 70', 1);
    const { prescriptionId } = await world.must('sign', signing(v));
    const order = { visitId: v.visitId, version: 5, requestKey: randomUUID(), prescriptionId, rightPacks: 1, leftPacks: 0 };
    expect(await world.do('placeOrder', { ...order, rightPacks: 3 })).toMatchObject({
      error: { fields: [{ path: ['rightPacks'], code: 'examinationFirst', data: { runOut: '2028-05-21', expires: '2027-11-24' } }] },
    });
    expect(await world.do('placeOrder', { ...order, leftPacks: 1 })).toMatchObject({ error: { fields: [{ path: ['leftPacks'], code: 'eyeNotPrescribed' }] } });
    expect(await world.do('placeOrder', { ...order, rightPacks: 0 })).toMatchObject({ error: { fields: [{ code: 'packsRequired' }] } });
    const [a, b] = [await world.must('placeOrder', order, world.callers.coordinator), await world.must('placeOrder', order, world.callers.coordinator)];
    expect(a.orderId).toBe(b.orderId);
    const [count] = await world.db.owner<{ n: number }[]>`select count(*)::int as n from lens_order where request_key = ${order.requestKey}`;
    expect(count?.n).toBe(1);
    await world.must('sign', signing(v, { version: 6 }));
    expect(await world.do('placeOrder', { ...order, requestKey: randomUUID(), version: 7 })).toMatchObject({ error: { rule: 'prescriptionSuperseded' } });
  });
  it('an order line is final or raw, never both: the database refuses it', async () => {
    const [line] = await world.db.owner<
      { orderId: string; prescriptionId: string; lensId: string }[]
    >`select order_id, prescription_id, lens_id from order_line limit 1`;
    for (const [mode, lensId, raw] of [
      ['final', null, null],
      ['raw', line?.lensId, '{}'],
      ['final', line?.lensId, '{}'],
      ['raw', null, null],
    ] as const) {
      await expect(
        world.db.app`insert into order_line (id, practice_id, order_id, prescription_id, eye, mode, lens_id, raw, packs, pack_size, pack_price_minor)
          values (${randomUUID()}, ${world.practiceId}, ${line?.orderId ?? ''}, ${line?.prescriptionId ?? ''}, 'left', ${mode}, ${lensId ?? null}, ${raw}, 1, 6, 1)`,
      ).rejects.toThrow(/check constraint/);
    }
  });
});

const latestHandOver = async (): Promise<{ visitId: string }> => {
  const [row] = await world.db.owner<{ visitId: string }[]>`select visit_id from hand_over where lot = 'P2181' order by recorded_at desc limit 1`;
  if (!row) throw new Error('nothing handed over yet');
  return row;
};

describe('a lens worn home', () => {
  it('worn home and read again at aftercare it is the same lens: family, curve, lot, confirmation and the history of its turn', async () => {
    const [given] = (await world.record((await latestHandOver()).visitId)).handOvers;
    const first = await world.record(given?.current?.visitId ?? '');
    const worn = given?.current;
    world.move(7 * 24 * 3600);
    const visitId = (await world.must('openVisit', { wearerId: first.wearer.id, kind: 'longFollowUp' })).visitId ?? '';
    const put = (change: object = {}) =>
      world.do('answerWorn', {
        visitId,
        version: 1,
        right: { answer: 'yes', lensId: worn?.lensId },
        left: null,
        since: { time: '7' },
        how: 'boxSeen',
        ...change,
      });
    const old = { answer: 'oldPair', handOverId: worn?.rootId };
    expect(await put({ right: null, left: old })).toMatchObject({ error: { fields: [{ path: ['left', 'handOverId'], code: 'otherEye' }] } });
    expect(await put({ since: null })).toMatchObject({ error: { fields: [{ path: ['since', 'time'], code: 'sinceRequired' }] } });
    expect(await put({ since: { time: '25' } })).toMatchObject({ error: { fields: [{ path: ['since', 'time'], code: 'notATime' }] } });
    expect(await put({ right: null })).toMatchObject({ error: { fields: [{ code: 'oneEyeRequired' }] } });
    expect(await put({ right: { answer: 'oldPair', handOverId: crypto.randomUUID() } })).toMatchObject({ error: { kind: 'notFound' } });
    expect(await put({ right: { answer: 'yes', lensId: crypto.randomUUID() } })).toMatchObject({ error: { kind: 'conflict' } });
    expect((await put()).ok).toBe(true);
    const record = await world.record(visitId);
    const [on] = record.facts.onEye;
    expect(on?.current).toMatchObject({ source: 'dispensed', lensId: worn?.lensId, lot: worn?.lot, expiresOn: worn?.expiresOn });
    const again = { lensOnEyeId: on?.rootId, lot: worn?.lot, expiresOn: worn?.expiresOn };
    expect(await world.do('handOver', { visitId, version: 2, right: again, left: null, experienceNote: 'worn for a week' })).toMatchObject({
      error: { rule: 'handedOverAlready' },
    });
    expect(record.facts.onEyeExtras[0]).toMatchObject({ how: 'boxSeen', takenOffAt: null });
    expect(on?.current?.putOnAt).toBe(momentOf(record.session.today, 7 * 60, record.session.practice.timeZone));
    const read = first.facts.rotations.map((c) => c.current?.rotationLeftDeg ?? 0);
    expect(turnHistory('right', worn?.lensId ?? '', record.earlierOnEye, record.earlierRotations)).toMatchObject([
      { visitId: first.visit.id, readings: read.length, rotationLeft: read.reduce((a, b) => a + b, 0) / read.length },
    ]);
  });
});
