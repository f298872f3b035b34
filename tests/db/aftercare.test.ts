import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Eye } from '../../src/core';
import { openWorld, spec, type World } from './support';

let world: World;
let record = 0;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

const WEEK = 7 * 24 * 3600;
const at = async (visitId: string) => ({ visitId, version: await world.version(visitId) });
const onOf = async (visitId: string, eye: Eye) => (await world.record(visitId)).facts.onEye.findLast((c) => c.current?.eye === eye)?.current;

/** Somebody fitted with monthly spheres, worn home. */
async function fitted(): Promise<string> {
  record += 1;
  const { wearerId = '' } = await world.must('createWearer', { name: `After Care ${record}`, birthDate: '1990-01-02' });
  const { visitId = '' } = await world.must('openVisit', { wearerId, kind: 'firstFit' });
  await world.must('recordRefraction', { visitId, version: 1, right: '-3.00', left: '-3.25', vertexMm: 12 });
  const inHand = { lot: 'A-77', expiresOn: '1 Mar 2032' };
  const right = { ...(await spec(world, 'turnstone-30', -3, 0, 180, 8.4)), inHand };
  const left = { ...(await spec(world, 'turnstone-30', -3.25, 0, 180, 8.4)), inHand };
  await world.must('putOnTrials', { ...(await at(visitId)), right, left, despiteReason: 'known wearer' });
  world.move(8 * 60);
  const box = async (eye: Eye) => ({ lensOnEyeId: (await onOf(visitId, eye))?.rootId, lot: 'A-77', expiresOn: '2032-03-01', lensCount: 1 });
  await world.must('handOver', { ...(await at(visitId)), right: await box('right'), left: await box('left'), experienceNote: 'wears since 2015' });
  await world.must('closeVisit', await at(visitId));
  return wearerId;
}
/** A follow-up a week later, both lenses confirmed in since seven. */
async function followUp(wearerId: string, kind = 'shortFollowUp'): Promise<string> {
  world.move(WEEK);
  const { visitId = '' } = await world.must('openVisit', { wearerId, kind });
  const { worn } = await world.record(visitId);
  const yes = (eye: Eye) => ({ answer: 'yes', lensId: worn[eye]?.lensId });
  await world.must('answerWorn', { ...(await at(visitId)), right: yes('right'), left: yes('left'), since: { time: '7' } });
  return visitId;
}
const answer = async (visitId: string, ...answers: readonly object[]) => world.do('answerAftercare', { ...(await at(visitId)), answers });
const trouble = (eye: Eye, ...said: readonly string[]) => ({ question: 'trouble', eye, said });
const end = async (visitId: string, form: object, caller = world.callers.prescriber) => world.do('endAftercare', { ...(await at(visitId)), ...form }, caller);
/** Everything that is looked at before lenses go on as they are. */
async function lookedAt(visitId: string): Promise<void> {
  await world.must('recordHistory', { ...(await at(visitId)), answers: [{ question: 'danger', value: ['none'], note: null }] });
  const read = async (eye: Eye) => ({ lensOnEyeId: (await onOf(visitId, eye))?.rootId, vertexMm: 12, overRefraction: 'plano', plusHalf: 'worse', fit: 'fits' });
  await world.must('recordOnEye', { ...(await at(visitId)), right: await read('right'), left: await read('left') });
  const stain = [{ sign: 'staining', value: 0 }];
  await world.must('recordFindings', { ...(await at(visitId)), right: stain, left: stain });
  expect(await answer(visitId, trouble('right', 'none'), trouble('left', 'none'))).toMatchObject({ ok: true });
}
const NEXT = { kind: 'shortFollowUp', day: '2027-03-02', time: '15:00', chairMinutes: 15, staffMinutes: 10, roomId: null, staffId: null, despite: '' };

describe('what is asked at aftercare', () => {
  it('is kept as said, of each eye; the newest holds and one press takes it back', async () => {
    const visitId = await followUp(await fitted());
    const first = await answer(visitId, trouble('right', 'haze', 'dryLate'), trouble('left', 'none'));
    expect(first).toMatchObject({ ok: true });
    await answer(visitId, { question: 'glasses', eye: null, said: ['none'] });
    const again = await answer(visitId, trouble('right', 'haze'));
    const { health } = await world.record(visitId);
    const said = health.aftercare.map((c) => [c.current?.question, c.current?.eye, c.current?.said]);
    expect(said).toContainEqual(['trouble', 'right', ['haze']]);
    expect(said).toContainEqual(['glasses', null, ['none']]);
    expect((await world.record(visitId)).answers.aftercare).toMatchObject({ code: 'running' });
    const facts = (again as unknown as { value: { facts: object[] } }).value.facts;
    await world.must('undo', { ...(await at(visitId)), facts });
    const held = (await world.record(visitId)).health.aftercare.flatMap((c) => (c.current?.eye === 'right' ? [c.current.said] : []));
    expect(held.at(-1)).toEqual(['haze', 'dryLate']);
  });
  it('what is no answer is refused at its field; nothing of it is kept', async () => {
    const visitId = await followUp(await fitted());
    const before = await world.version(visitId);
    expect(await answer(visitId, trouble('right', 'haze'), trouble('left', 'none', 'itch'))).toMatchObject({
      error: { fields: [{ path: ['answers', '1', 'said'], code: 'noneWithOthers' }] },
    });
    expect(await answer(visitId, { question: 'solutionUsed', eye: null, said: ['5b3fd6a0-0000-4000-8000-000000000001'] })).toMatchObject({
      error: { fields: [{ code: 'solutionUnknown' }] },
    });
    expect(await answer(visitId, { question: 'firstNight', eye: null, said: ['2031-01-01'] })).toMatchObject({ error: { fields: [{ code: 'dayAhead' }] } });
    expect(await world.version(visitId)).toBe(before);
    expect((await world.record(visitId)).health.aftercare).toEqual([]);
  });
  it('a first night said once holds at the next visits; what was reported does not', async () => {
    const wearerId = await fitted();
    const visitId = await followUp(wearerId);
    const today = (await world.record(visitId)).session.today;
    await answer(visitId, trouble('right', 'itch'), { question: 'firstNight', eye: null, said: [today] });
    await world.must('closeVisit', await at(visitId));
    const next = await followUp(wearerId);
    expect((await world.record(next)).health.aftercare.map((c) => c.current?.question)).toEqual(['firstNight']);
  });
});

describe('how it ends', () => {
  it('lenses go on only where all of it was looked at; a prescriber may say why all the same, a technician may not', async () => {
    const visitId = await followUp(await fitted());
    const keep = { outcome: 'keep', next: NEXT };
    expect(await end(visitId, keep, world.callers.technician)).toMatchObject({ error: { rule: 'aftercareOpen' } });
    expect(await end(visitId, keep)).toMatchObject({ error: { fields: [{ path: ['note'], code: 'aftercareOpen', data: { count: 9 } }] } });
    expect(await end(visitId, { ...keep, note: 'seen an hour ago' })).toMatchObject({ ok: true });
    expect((await world.record(visitId)).answers.aftercare).toMatchObject({ code: 'keep' });
  });
  it('keeps what it pointed to, and books the next visit in the same press or not at all', async () => {
    const wearerId = await fitted();
    const visitId = await followUp(wearerId);
    await lookedAt(visitId);
    await answer(visitId, trouble('right', 'itch'), { question: 'glasses', eye: null, said: ['none'] });
    expect(await end(visitId, { outcome: 'change', note: '', next: NEXT })).toMatchObject({ error: { fields: [{ code: 'sayWhatChanges' }] } });
    expect(await end(visitId, { outcome: 'keep', next: { ...NEXT, day: '2020-01-01' } })).toMatchObject({ error: { fields: [{ code: 'dayPast' }] } });
    const booked = () => world.db.owner`select kind, state from appointment where wearer_id = ${wearerId} and starts_at > '2027-03-01'`;
    expect(await booked()).toEqual([]);
    expect(await end(visitId, { outcome: 'keep' })).toMatchObject({ error: { fields: [{ path: ['unbookedReason'], code: 'bookOrSayWhy' }] } });
    expect(await end(visitId, { outcome: 'keep', next: NEXT }, world.callers.technician)).toMatchObject({ ok: true });
    expect(await booked()).toEqual([{ kind: 'shortFollowUp', state: 'booked' }]);
    const [row] = await world.db.owner<{ pointedTo: string[]; appointmentId: string | null }[]>`
      select pointed_to, appointment_id from aftercare_end where visit_id = ${visitId}`;
    expect(row?.pointedTo).toEqual(['itchReusable right', 'noGlasses']);
    expect(row?.appointmentId).not.toBeNull();
    // What is booked already is the next visit; nothing is booked twice.
    expect(await end(visitId, { outcome: 'keep' })).toMatchObject({ ok: true });
    expect(await booked()).toHaveLength(1);
  });
  it('not booked with a reason; stopped without a booking', async () => {
    const visitId = await followUp(await fitted());
    expect(await end(visitId, { outcome: 'stop', note: 'goes back to glasses' })).toMatchObject({ ok: true });
    expect(await end(visitId, { outcome: 'change', note: 'daily lenses', unbookedReason: 'moves away' })).toMatchObject({ ok: true });
    await expect(world.db.owner`update aftercare_end set unbooked_reason = null where visit_id = ${visitId} and outcome = 'change'`).rejects.toThrow(/check/);
  });
});

describe('adverse events', () => {
  const event = async (visitId: string, form: object = {}) =>
    world.do('recordAdverseEvent', { ...(await at(visitId)), eye: 'right', event: 'abrasion', beganOn: '2026-11-25', ...form });
  const back = async (visitId: string, form: object = {}, caller = world.callers.prescriber) => {
    const { adverseEvents } = (await world.record(visitId)).health;
    const adverseEventId = adverseEvents.at(-1)?.rootId;
    return world.do('returnToWear', { ...(await at(visitId)), eye: 'right', adverseEventId, newLens: true, newCase: true, dropsOff: true, ...form }, caller);
  };
  it('are kept with the lens and the lot it happened with; from then on no lens goes on until a prescriber gives a reason or lets it', async () => {
    const wearerId = await fitted();
    const visitId = await followUp(wearerId);
    expect(await event(visitId, { beganOn: '2035-01-01' })).toMatchObject({ error: { fields: [{ path: ['beganOn'], code: 'dayAhead' }] } });
    expect(await event(visitId)).toMatchObject({ ok: true });
    const { adverseEvents } = (await world.record(visitId)).health;
    expect(adverseEvents.map((c) => c.current)).toMatchObject([{ event: 'abrasion', lot: 'A-77', lensesOff: true, beganOn: '2026-11-25' }]);
    expect(adverseEvents[0]?.current?.lensId).toBe((await onOf(visitId, 'right'))?.lensId);
    await lookedAt(visitId);
    expect(await end(visitId, { outcome: 'keep', unbookedReason: 'asks' })).toMatchObject({ error: { rule: 'lensesOffNow' } });
    const lens = { ...(await spec(world, 'turnstone-30', -3, 0, 180, 8.4)), inHand: { lot: 'B-1', expiresOn: '1 Mar 2032' } };
    const puts = async (visit: string) => world.do('putOnTrials', { ...(await at(visit)), right: lens, left: null, despiteReason: 'x y z' });
    expect(await puts(visitId)).toMatchObject({ error: { rule: 'stopWaits', data: { rule: 'lensesOff' } } });
    await world.must('closeVisit', await at(visitId));
    // It holds at the next visit as well, for an order too.
    const next = await followUp(wearerId);
    expect(await puts(next)).toMatchObject({ error: { rule: 'stopWaits' } });
  });
  it('back into lenses takes all six; a technician does not decide it', async () => {
    const wearerId = await fitted();
    const visitId = await followUp(wearerId);
    await event(visitId);
    expect(await back(visitId, {}, world.callers.technician)).toMatchObject({ ok: false });
    expect(await back(visitId)).toMatchObject({ error: { fields: [{ path: ['clearCornea'], data: { what: 'clearCornea' } }] } });
    const stain = (value: number) => [{ sign: 'staining', value }];
    await world.must('recordFindings', { ...(await at(visitId)), right: stain(0.5), left: [] });
    expect(await back(visitId)).toMatchObject({ error: { fields: [{ path: ['clearCornea'] }] } });
    await world.must('recordFindings', { ...(await at(visitId)), right: stain(0), left: [] });
    for (const one of ['newLens', 'newCase', 'dropsOff']) expect(await back(visitId, { [one]: false })).toMatchObject({ error: { fields: [{ path: [one] }] } });
    expect(await back(visitId)).toMatchObject({ error: { fields: [{ path: ['aftercareBooked'] }] } });
    const today = (await world.record(visitId)).session.today;
    const inDays = (days: number) => new Date(Date.parse(today) + days * 86_400_000).toISOString().slice(0, 10);
    const { appointmentId } = await world.must('bookAppointment', { ...NEXT, wearerId, note: '', day: inDays(9), despite: 'any day' });
    expect(await back(visitId)).toMatchObject({ error: { fields: [{ path: ['aftercareBooked'] }] } });
    await world.must('moveAppointment', { appointmentId, version: 1, ...NEXT, kind: undefined, day: inDays(6), despite: 'any day' });
    expect(await back(visitId)).toMatchObject({ ok: true });
    const { health } = await world.record(visitId);
    expect(health.returns.map((r) => r.current)).toMatchObject([{ eye: 'right', newCase: true, aftercareOn: inDays(6) }]);
    // It is over: a second return ends nothing, and lenses go on again.
    expect(await back(visitId)).toMatchObject({ error: { kind: 'notFound' } });
    const lens = { ...(await spec(world, 'turnstone-30', -3, 0, 180, 8.4)), inHand: { lot: 'B-1', expiresOn: '1 Mar 2032' } };
    expect(await world.do('putOnTrials', { ...(await at(visitId)), right: lens, left: null, despiteReason: 'new lens' })).toMatchObject({ ok: true });
  });
  it('an absolute stop that is open refuses it, whatever else is there', async () => {
    const visitId = await followUp(await fitted(), 'redEye');
    await event(visitId, { event: 'microbialKeratitis' });
    await world.must('recordFindings', {
      ...(await at(visitId)),
      right: [
        { sign: 'suspected', value: 'cornealInfection' },
        { sign: 'staining', value: 0 },
      ],
      left: [],
    });
    expect(await back(visitId)).toMatchObject({ error: { fields: [{ path: ['released'] }] } });
  });
  it('what hurts no cornea is recorded, and keeps no lens off', async () => {
    const visitId = await followUp(await fitted());
    expect(await event(visitId, { event: 'tornLens', lot: 'C-9' })).toMatchObject({ ok: true });
    const { health } = await world.record(visitId);
    expect(health.adverseEvents[0]?.current).toMatchObject({ lensesOff: false, lot: 'C-9' });
    expect(await back(visitId)).toMatchObject({ error: { kind: 'notFound' } });
  });
});
