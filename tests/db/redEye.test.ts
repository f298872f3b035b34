import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openWorld, signPair, type World } from './support';

let world: World;
let record = 0;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

const at = async (visitId: string) => ({ visitId, version: await world.version(visitId) });
async function somebody(): Promise<string> {
  record += 1;
  return (await world.must('createWearer', { name: `Red Eye ${record}`, birthDate: '1990-01-02' })).wearerId ?? '';
}
const visitOf = async (wearerId: string, kind = 'redEye') => (await world.must('openVisit', { wearerId, kind })).visitId ?? '';
const valueOf = <V>(done: unknown): V => (done as { value: V }).value;
const draw = async (visitId: string, change: object = {}) =>
  world.do('recordLesion', { ...(await at(visitId)), eye: 'right', kind: 'infiltrate', nasalMm: 1.24, upMm: -2, longMm: 2.5, acrossMm: 1, ...change });
const see = async (visitId: string, right: Readonly<Record<string, unknown>>) =>
  world.do('recordFindings', { ...(await at(visitId)), right: Object.entries(right).map(([sign, value]) => ({ sign, value })), left: [] });

describe('what is drawn on a cornea', () => {
  it('is kept in tenths of a millimetre, told to who comes second, and undone', async () => {
    const visitId = await visitOf(await somebody());
    const done = await draw(visitId);
    expect(done).toMatchObject({ ok: true });
    const { health } = await world.record(visitId);
    expect(health.lesions.map((c) => c.current)).toMatchObject([{ eye: 'right', kind: 'infiltrate', nasalMm: 1.2, upMm: -2, longMm: 2.5, acrossMm: 1 }]);
    const late = await world.do('recordLesion', { visitId, version: 1, eye: 'right', kind: 'ulcer', nasalMm: 0, upMm: 0, longMm: 1, acrossMm: 1 });
    expect(late).toMatchObject({ error: { kind: 'conflict' } });
    expect(JSON.stringify(late)).toContain('infiltrate 2.5 mm');
    const facts = valueOf<{ facts: readonly object[] }>(done).facts;
    await world.must('undo', { ...(await at(visitId)), facts });
    expect((await world.record(visitId)).health.lesions.filter((c) => c.current !== null)).toEqual([]);
  });
  it('off the cornea, of no size or no number it is refused at its field; the database holds the same limits', async () => {
    const visitId = await visitOf(await somebody());
    expect(await draw(visitId, { upMm: 9 })).toMatchObject({ error: { fields: [{ code: 'lesionOffCornea', data: { max: 7 } }] } });
    expect(await draw(visitId, { longMm: 0 })).toMatchObject({ error: { fields: [{ code: 'lesionSize' }] } });
    expect(await draw(visitId, { acrossMm: 3 })).toMatchObject({ error: { fields: [{ code: 'lesionAcrossLonger' }] } });
    expect(await draw(visitId, { longMm: 'wide' })).toMatchObject({ error: { fields: [{ code: 'lesionNotANumber' }] } });
    await draw(visitId);
    const insert = (up: number, long: number, across: number) => world.db.owner`
      insert into corneal_lesion (id, root_id, practice_id, visit_id, visit_version, eye, observed_at, recorded_at, recorded_by, kind, nasal_mm, up_mm, long_mm, across_mm)
      select x, x, practice_id, visit_id, visit_version, eye, observed_at, recorded_at, recorded_by, kind, 0, ${up}, ${long}, ${across}
      from corneal_lesion, (select ${randomUUID()}::uuid as x) i where visit_id = ${visitId} limit 1`;
    await expect(insert(8, 1, 1)).rejects.toThrow(/check/);
    await expect(insert(0, 1, 2)).rejects.toThrow(/check/);
    await expect(insert(0, 0, 0)).rejects.toThrow(/check/);
  });
  it('an ulcer opens an absolute stop in the same press; an infiltrate where the eye hurts; nobody ends it the same day', async () => {
    const wearerId = await somebody();
    const visitId = await visitOf(wearerId);
    await draw(visitId);
    expect((await world.record(visitId)).stops).toEqual([]);
    await see(visitId, { pain: 3 });
    expect((await world.record(visitId)).stops).toEqual(['infiltrateDrawn']);
    await draw(visitId, { kind: 'ulcer', upMm: 1 });
    const now = await world.record(visitId);
    expect([...now.stops].sort()).toEqual(['cornealUlcer', 'infiltrateDrawn']);
    await see(visitId, { staining: 0, papillae: 0, chamber: 'quiet' });
    const stop = now.health.stops.find((s) => s.rule === 'cornealUlcer');
    expect(await world.do('endStop', { ...(await at(visitId)), stopId: stop?.id, how: 'secondLook', reason: 'looks better' })).toMatchObject({ ok: false });
  });
  it('a referral makes tomorrow’s call; it is done once they were called', async () => {
    const wearerId = await somebody();
    const visitId = await visitOf(wearerId);
    await see(visitId, { ring: 'seen' });
    const [stop] = (await world.record(visitId)).health.stops;
    await world.must('openReferral', { ...(await at(visitId)), stopId: stop?.id });
    const tasks = () => world.db.owner<{ dueOn: string; doneAt: string | null }[]>`select due_on, done_at from task where wearer_id = ${wearerId}`;
    expect(await tasks()).toMatchObject([{ dueOn: '2026-11-25', doneAt: null }]);
    const [referral] = (await world.record(visitId)).health.referrals;
    await world.must('recordReferralStep', { ...(await at(visitId)), referralId: referral?.id, step: 'calledNextDay' });
    expect((await tasks())[0]?.doneAt).not.toBeNull();
  });
});

describe('on the telephone', () => {
  const { coordinator, technician } = { coordinator: () => world.callers.coordinator, technician: () => world.callers.technician };
  const call = (wearerId: string, change: object = {}, caller = coordinator()) =>
    world.do('triageRedEye', { wearerId, signs: ['redness', 'pain'], onset: 'since last night', goes: 'here', time: '16:00', ...change }, caller);

  it('a coordinator raises the alert, books today and makes tomorrow’s call; nothing can be ordered meanwhile', async () => {
    const ordered = await world.visit(2, { right: '-2.00', left: '-2.25' });
    const prescriptionId = await signPair(world, ordered);
    await world.must('closeVisit', await at(ordered));
    const wearerId = await world.wearerId(2);
    const done = await call(wearerId);
    expect(done).toMatchObject({ ok: true, value: { urgency: 'now' } });
    const { visitId, appointmentId } = valueOf<{ visitId: string; appointmentId: string }>(done);
    expect((await world.record(visitId)).visit).toMatchObject({ kind: 'redEye' });
    expect((await world.record(visitId)).visit.closedAt).not.toBeNull();
    const [slot] = await world.db.owner<
      { startsAt: string; kind: string; state: string }[]
    >`select starts_at, kind, state from appointment where id = ${appointmentId}`;
    expect(slot).toMatchObject({ kind: 'redEye', state: 'booked' });
    const [task] = await world.db.owner<
      { dueOn: string; because: string }[]
    >`select due_on, because from task where wearer_id = ${wearerId} and because = 'redEye'`;
    expect(task).toEqual({ dueOn: '2026-11-25', because: 'redEye' });
    // What was heard stands at every visit from now on: pain in a red eye is an absolute stop, and the alert waits beside it.
    const reorder = (await world.must('openVisit', { wearerId, kind: 'reorder' }, coordinator())).visitId ?? '';
    const next = await world.record(reorder);
    expect(next.stops).toEqual(['heardRedPainful']);
    expect(next.alert?.signs).toEqual(['redness', 'pain']);
    const press = { requestKey: randomUUID(), prescriptionId, rightPacks: 1, leftPacks: 1 };
    expect(await world.do('placeOrder', { ...(await at(reorder)), ...press }, coordinator())).toMatchObject({ ok: false, error: { kind: 'ruleBroken' } });
  });
  it('redness alone holds up an order by its alert, until a prescriber has taken it up', async () => {
    const wearerId = await somebody();
    expect(await call(wearerId, { signs: ['redness'], onset: '' })).toMatchObject({ value: { urgency: 'today' } });
    const visitId = await visitOf(wearerId, 'reorder');
    expect((await world.record(visitId)).stops).toEqual([]);
    expect(await world.do('startLesson', await at(visitId))).toMatchObject({ error: { rule: 'alertWaits' } });
    const { alert } = await world.record(visitId);
    expect(await world.do('acknowledgeAlert', { ...(await at(visitId)), answerId: alert?.answerId }, technician())).toMatchObject({ ok: false });
    await world.must('acknowledgeAlert', { ...(await at(visitId)), answerId: alert?.answerId });
    expect((await world.record(visitId)).alert).toBeNull();
  });
  it('a visit of the red eye is proposed from then on', async () => {
    const wearerId = await somebody();
    await call(wearerId, { signs: ['something'] });
    const file = await world.must('readWearer', { wearerId });
    expect(JSON.stringify(file)).toContain('alertSince');
    const visitId = await visitOf(wearerId);
    const [decision] = await world.db.owner<{ proposedKind: string }[]>`select proposed_kind from visit_decision where visit_id = ${visitId}`;
    expect(decision?.proposedKind).toBe('redEye');
  });
  it('sent to emergency care nothing is booked here; a time that is over, no sign and nobody are said', async () => {
    const wearerId = await somebody();
    expect(await call(wearerId, { goes: 'emergency', time: null })).toMatchObject({ value: { appointmentId: null } });
    expect(await call(wearerId, { time: '9:00' })).toMatchObject({ error: { fields: [{ path: ['time'], code: 'timePast' }] } });
    expect(await call(wearerId, { time: null })).toMatchObject({ error: { fields: [{ path: ['time'], code: 'timeRequired' }] } });
    expect(await call(wearerId, { signs: [] })).toMatchObject({ error: { fields: [{ path: ['signs'], code: 'dangerRequired' }] } });
    expect(await call(randomUUID())).toMatchObject({ error: { kind: 'notFound' } });
    // Said twice it is one call tomorrow.
    const [row] = await world.db.owner<{ count: number }[]>`select count(*)::int as count from task where wearer_id = ${wearerId}`;
    expect(row?.count).toBe(1);
  });
  it('who only looks after settings hears nothing', async () => {
    expect(await call(await somebody(), {}, world.callers.admin)).toMatchObject({ ok: false, error: { kind: 'forbidden' } });
  });
});
