import sharp from 'sharp';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Result } from '../../src/lib/outcome';
import { claimDispatch } from '../../src/db/dispatch';
import type { ServiceName } from '../../src/services';
import { openWorld, SENTENCES, spec, type World } from './support';
import { fillDrawer } from '../support/drawer';

let world: World;
let visitId: string;
let nextWearer = 0;

/** A wearer and a visit of its own for each test: stops belong to the wearer. */
async function freshVisit(change: { birthDate?: string; guardian?: string } = {}): Promise<string> {
  nextWearer += 1;
  const { wearerId = '' } = await world.must('createWearer', { name: `Somebody ${nextWearer}`, birthDate: '1990-01-02', ...change });
  const { visitId: id = '' } = await world.must('openVisit', { wearerId, kind: 'firstFit' });
  return id;
}
const versioned = async (name: ServiceName, input: object, caller = world.asha, visit = visitId): Promise<Result<Record<string, never>>> =>
  world.do(name, { visitId: visit, version: await world.version(visit), ...input }, caller);
const say = async (answers: Readonly<Record<string, unknown>>, caller = world.callers.technician, visit = visitId) =>
  versioned('recordHistory', { answers: Object.entries(answers).map(([question, value]) => ({ question, value, note: null })) }, caller, visit);
const see = async (right: Readonly<Record<string, number | string>>, left: Readonly<Record<string, number | string>> = {}, visit = visitId) => {
  const list = (all: Readonly<Record<string, number | string>>) => Object.entries(all).map(([sign, value]) => ({ sign, value }));
  return versioned('recordFindings', { right: list(right), left: list(left) }, world.callers.technician, visit);
};
const refused = (rule: string) => ({ ok: false, error: { kind: 'ruleBroken', rule } });

beforeAll(async () => {
  world = await openWorld();
}, 180_000);
afterAll(() => world.db.close());
beforeEach(async () => {
  await fillDrawer(world.db.owner, 20);
  visitId = await freshVisit();
});

/** What every stop asks to be graded anew before it ends. */
const LOOKED = { staining: 0, papillae: 0, chamber: 'quiet' } as const;

/** Everything that brings a lens nearer, as a request would ask for it. */
async function lensCommands(visit: string): Promise<[ServiceName, object][]> {
  const lens = await spec(world, 'plover-30-toric', -3, -1.75, 20);
  const uuid = crypto.randomUUID();
  return [
    ['putOnTrials', { right: lens, left: null }],
    [
      'sign',
      {
        password: 'plain-sight',
        right: { mode: 'final', lens, triedLensOnEyeId: null },
        left: null,
        expiresOn: '2027-11-24',
        waitNote: 'why',
        daysPerWeek: 7,
        overrides: SENTENCES,
      },
    ],
    ['startLesson', {}],
    ['signOffLesson', { lessonId: uuid }],
    ['recordAttempt', { lessonId: uuid, eye: 'right', move: 'on', worked: true, miss: null }],
    ['handOver', { right: { lensOnEyeId: uuid, lot: 'A', expiresOn: '2027-01-01' }, left: null, experienceNote: 'x' }],
    ['placeOrder', { requestKey: uuid, prescriptionId: uuid, rightPacks: 1, leftPacks: 0 }],
  ].map(([name, input]) => [name, { ...(input as object), visitId: visit }] as [ServiceName, object]);
}

describe('an absolute stop', () => {
  beforeEach(async () => {
    expect(await see({ bulbarRedness: 3, pain: 6 })).toMatchObject({ ok: true });
  });
  it('opens with the finding, for the wearer, and says what it rests on', async () => {
    const { health } = await world.record(visitId);
    expect(health.stops).toMatchObject([{ rule: 'redPainful', eyes: ['right'], endedAt: null }]);
    expect(health.stops[0]?.evidence.map((e) => e.key).sort()).toEqual(['bulbarRedness', 'pain']);
  });
  it('shuts every command that brings a lens nearer, for every role that may do it', async () => {
    let tried = 0;
    for (const [name, input] of await lensCommands(visitId)) {
      for (const caller of [world.asha, world.callers.technician, world.callers.coordinator]) {
        const result = await versioned(name, input, caller);
        expect(result.ok, name).toBe(false);
        if (!result.ok && result.error.kind !== 'forbidden') {
          expect(result, name).toMatchObject(refused('absoluteStop'));
          tried += 1;
        }
      }
    }
    expect(tried).toBeGreaterThanOrEqual(12);
    for (const measured of [
      ['recordRefraction', { right: '-1.00', left: null, vertexMm: 12 }],
      ['recordOnEye', { right: { lensOnEyeId: crypto.randomUUID(), fit: 'fits', overRefraction: null, vertexMm: 12 }, left: null }],
      ['decideKind', { modality: 'daily', wear: 'day', reason: 'x y z' }],
    ] as const)
      expect(await versioned(measured[0], measured[1])).toMatchObject(refused('absoluteStop'));
  });
  it('cannot be passed with a reason, not even by a prescriber', async () => {
    expect(await versioned('overrideStop', { rule: 'redPainful', reason: 'I take it on me' })).toMatchObject(refused('absoluteCannotPass'));
  });
  it('stands in another visit of the same wearer too, opened after or before', async () => {
    const { wearer } = await world.record(visitId);
    const { visitId: other = '' } = await world.must('openVisit', { wearerId: wearer.id, kind: 'refit' });
    expect(await world.do('recordRefraction', { visitId: other, version: 1, right: '-1.00', left: null, vertexMm: 12 })).toMatchObject(refused('absoluteStop'));
  });
  it('grading it away does not end it, nor does undoing', async () => {
    await see({ bulbarRedness: 1, pain: 0 });
    expect(await versioned('recordRefraction', { right: '-1.00', left: null, vertexMm: 12 })).toMatchObject(refused('absoluteStop'));
  });
  it('ends as a wrong entry only in its own visit, only when it no longer holds, only by a prescriber, with a reason', async () => {
    const stopId = (await world.record(visitId)).health.stops[0]?.id;
    expect(await versioned('endStop', { stopId, how: 'wrongEntry', reason: 'it was the left eye' })).toMatchObject(refused('stopHoldsStill'));
    expect(await versioned('endStop', { stopId, how: 'healed', reason: 'looks fine' })).toMatchObject(refused('healedSameVisit'));
    const row = (await world.record(visitId)).health.findings.find((c) => c.current?.sign === 'pain')?.current;
    await versioned('correct', { kind: 'finding', factId: row?.id, reason: 'typed 6 for 0', value: { as: 'sign', value: 0 } }, world.callers.technician);
    expect(await versioned('endStop', { stopId, how: 'wrongEntry', reason: 'typed 6 for 0' }, world.callers.technician)).toMatchObject({
      error: { kind: 'forbidden' },
    });
    expect(await versioned('endStop', { stopId, how: 'wrongEntry', reason: ' ' })).toMatchObject({ error: { kind: 'invalid' } });
    expect(await versioned('endStop', { stopId, how: 'wrongEntry', reason: 'typed 6 for 0' })).toMatchObject({ ok: true });
    expect(await versioned('recordRefraction', { right: '-1.00', left: null, vertexMm: 12 })).toMatchObject({ ok: true });
    expect(await versioned('endStop', { stopId, how: 'wrongEntry', reason: 'again' })).toMatchObject(refused('stopEnded'));
  });
  it('ends as healed at a later visit, only after what opened it was looked at again', async () => {
    const { wearer, health } = await world.record(visitId);
    const stopId = health.stops[0]?.id;
    world.move(3600);
    const { visitId: later = '' } = await world.must('openVisit', { wearerId: wearer.id, kind: 'longFollowUp' });
    const end = () => versioned('endStop', { stopId, how: 'healed', reason: 'quiet, no stain' }, world.asha, later);
    expect(await end()).toMatchObject(refused('gradeAfreshFirst'));
    await see(LOOKED, {}, later);
    expect(await end()).toMatchObject(refused('lookAgainFirst'));
    await see({ bulbarRedness: 1, pain: 0 }, {}, later);
    expect(await end()).toMatchObject({ ok: true });
  });
  it('ends after a second look the same day, what it rests on gone and stain, lid and chamber fresh', async () => {
    const stopId = (await world.record(visitId)).health.stops[0]?.id;
    const end = () => versioned('endStop', { stopId, how: 'secondLook', reason: 'foreign body out, cornea clear' });
    world.move(60);
    await see(LOOKED);
    expect(await end()).toMatchObject(refused('stopHoldsStill'));
    await see({ bulbarRedness: 1, pain: 1 });
    expect(await end()).toMatchObject({ ok: true });
  });
  it('acuity of an eye, findings and the history go on being recorded under it', async () => {
    expect(
      await versioned('recordFindings', {
        right: [{ sign: 'staining', value: 1 }],
        left: [],
        rightSight: [{ way: 'pinhole', acuity: { logMar: 0.3, typed: '20/40' } }],
        leftSight: [],
      }),
    ).toMatchObject({ ok: true });
    expect(await say({ onset: 'since this morning' })).toMatchObject({ ok: true });
    expect((await world.record(visitId)).facts.eyeAcuities[0]?.current).toMatchObject({ way: 'pinhole', acuityTyped: '20/40' });
  });
  it('the database itself refuses a lens, whoever asks it', async () => {
    const { wearer } = await world.record(visitId);
    await expect(
      world.db.app`insert into lens_order (id, practice_id, number, request_key, visit_id, visit_version, wearer_id, prescription_id, placed_at, placed_by)
        values (${crypto.randomUUID()}, ${world.practiceId}, 999, ${crypto.randomUUID()}, ${visitId}, 1, ${wearer.id}, ${crypto.randomUUID()}, now(), ${world.asha.personId})`,
    ).rejects.toThrow(/absolute stop/);
    await expect(world.db.app`delete from safety_stop`).rejects.toThrow(/permission denied/);
    await expect(world.db.app`update safety_stop set rule = 'x'`).rejects.toThrow(/permission denied/);
  });
  it('a lens may still be taken off, a worn one recorded, a picture kept, the visit closed', async () => {
    expect(await versioned('recordBroughtIn', { eye: 'right', description: 'own lens', power: null, how: null })).toMatchObject({ ok: true });
    const onEye = (await world.record(visitId)).facts.onEye[0]?.rootId;
    expect(await versioned('takeOff', { lensOnEyeIds: [onEye] })).toMatchObject({ ok: true });
    expect(await versioned('closeVisit', {})).toMatchObject({ ok: true });
  });
  it('opens one referral, with steps done once and by whom', async () => {
    const stopId = (await world.record(visitId)).health.stops[0]?.id;
    expect(await versioned('openReferral', { stopId }, world.callers.technician)).toMatchObject({ ok: true });
    expect(await versioned('openReferral', { stopId })).toMatchObject(refused('referralOpen'));
    const referralId = (await world.record(visitId)).health.referrals[0]?.id;
    await versioned('recordReferralStep', { referralId, step: 'phoned' });
    await versioned('recordReferralStep', { referralId, step: 'phoned' });
    expect((await world.record(visitId)).health.referrals).toMatchObject([
      { addressedTo: 'Harbourside Eye Casualty', telephone: '555 0190', steps: [{ step: 'phoned', by: 'Asha Penhallow' }] },
    ]);
  });
});

describe('a stop that rests on what was said, or on a medicine and the power', () => {
  it('pain and redness only heard of end when a prescriber has looked at both eyes, with the cause', async () => {
    await say({ danger: ['redness', 'pain'] });
    const stop = (await world.record(visitId)).health.stops[0];
    expect(stop).toMatchObject({ rule: 'heardRedPainful', eyes: [] });
    const end = () => versioned('endStop', { stopId: stop?.id, how: 'looked', reason: 'an eyelash in the left eye, taken out' });
    expect(await end()).toMatchObject({ error: { rule: 'gradeAfreshFirst', data: { eye: 'right', sign: 'staining' } } });
    world.move(60);
    await see(LOOKED);
    expect(await end()).toMatchObject({ error: { data: { eye: 'left' } } });
    await see({}, LOOKED);
    expect(await end()).toMatchObject({ ok: true });
    // The same answers, said in another order, do not open it again.
    await say({ danger: ['pain', 'redness'] });
    expect((await world.record(visitId)).health.stops.filter((s) => s.endedAt === null)).toEqual([]);
    expect(await versioned('recordRefraction', { right: '-1.00', left: null, vertexMm: 12 })).toMatchObject({ ok: true });
  });
  it('what was seen is not ended as if only said, a suspected infection by no second look', async () => {
    await see({ suspected: 'cornealInfection' });
    const stopId = (await world.record(visitId)).health.stops[0]?.id;
    expect(await versioned('endStop', { stopId, how: 'looked', reason: 'nothing there' })).toMatchObject(refused('notOnlySaid'));
    expect(await versioned('endStop', { stopId, how: 'secondLook', reason: 'nothing there' })).toMatchObject(refused('noSecondLook'));
  });
  it('nothing graded with the lens on counts', async () => {
    await say({ danger: ['redness', 'light'] });
    const stopId = (await world.record(visitId)).health.stops[0]?.id;
    await versioned('recordBroughtIn', { eye: 'left', description: 'own lens', power: null, how: null });
    world.move(60);
    await see(LOOKED, LOOKED);
    expect(await versioned('endStop', { stopId, how: 'looked', reason: 'dust, washed out' })).toMatchObject({
      error: { rule: 'gradeAfreshFirst', data: { eye: 'left' } },
    });
  });
  it('topiramate and 1.00 D towards minus since the last visit open one when the refraction is recorded', async () => {
    await versioned('recordRefraction', { right: '-1.00', left: '-1.25', vertexMm: 12 });
    const { wearer } = await world.record(visitId);
    world.move(3600 * 24 * 30);
    const { visitId: later = '' } = await world.must('openVisit', { wearerId: wearer.id, kind: 'longFollowUp' });
    await say({ medicines: ['topiramate 50 mg twice a day'] }, world.callers.technician, later);
    expect((await world.record(later)).health.stops).toEqual([]);
    await versioned('recordRefraction', { right: '-2.25', left: '-1.25', vertexMm: 12 }, world.asha, later);
    expect((await world.record(later)).health.stops).toMatchObject([{ rule: 'myopicShift', endedAt: null }]);
    expect(await versioned('decideKind', { modality: 'daily', wear: 'day', reason: 'x y z' }, world.asha, later)).toMatchObject(refused('absoluteStop'));
  });
  it('an eye that hurts and looks quiet is a stop until a prescriber has graded its cornea with stain', async () => {
    await see({ pain: 5, bulbarRedness: 0, staining: 0 });
    expect((await world.record(visitId)).health.stops).toEqual([]);
    await versioned('recordRefraction', { right: '-3.00 -1.75 x 20', left: null, vertexMm: 12 });
    const lens = await spec(world, 'plover-30-toric', -3, -1.75, 20);
    const put = () => versioned('putOnTrials', { right: lens, left: null });
    expect(await put()).toMatchObject({ error: { rule: 'stopWaits', data: { rule: 'hurtsUnseen' } } });
    // Graded by the technician it stays; by the prescriber, at this visit, it is gone.
    await versioned('recordFindings', { right: [{ sign: 'staining', value: 0 }], left: [] }, world.asha);
    expect(await put()).toMatchObject({ ok: true });
  });
});

describe('orders on their way out', () => {
  it('are held while an absolute stop stands, and go on after it', async () => {
    const { wearerId = '' } = await world.must('createWearer', { name: 'Ordered Before', birthDate: '1990-01-02' });
    const { visitId: id = '' } = await world.must('openVisit', { wearerId, kind: 'longFollowUp' });
    visitId = id;
    await versioned('recordRefraction', { right: '-3.00', left: null, vertexMm: 12 });
    const lens = await spec(world, 'turnstone-30', -3, 0, 180, 8.4, 14.2);
    const signed = await versioned('sign', {
      password: 'plain-sight',
      right: { mode: 'final', lens, triedLensOnEyeId: null },
      left: null,
      expiresOn: '2027-11-24',
      waitNote: 'x',
      daysPerWeek: 7,
      overrides: SENTENCES,
    });
    if (!signed.ok) throw new Error(JSON.stringify(signed.error));
    const prescriptionId = (signed.value as unknown as { prescriptionId: string }).prescriptionId;
    expect(await versioned('placeOrder', { requestKey: crypto.randomUUID(), prescriptionId, rightPacks: 1, leftPacks: 0 })).toMatchObject({ ok: true });
    const claim = () =>
      world.db.owner.begin(async (tx) => {
        const row = await claimDispatch(tx as never, '2099-01-01T00:00:00Z', () => '2026-11-24T00:00:00Z');
        return row;
      });
    await see({ suspected: 'cornealInfection' });
    expect(await claim()).toBeNull();
    const order = (await world.record(visitId)).orders[0];
    expect(await world.do('hastenOrder', { orderId: order?.id, visitId })).toMatchObject(refused('absoluteStop'));
    await see({ suspected: 'nothing' });
    const stopId = (await world.record(visitId)).health.stops.find((s) => s.endedAt === null)?.id;
    expect(await versioned('endStop', { stopId, how: 'wrongEntry', reason: 'wrong row pressed' })).toMatchObject({ ok: true });
    expect(await claim()).toMatchObject({ orderId: order?.id });
  });
});

describe('a stop a prescriber may pass', () => {
  const tryOn = async () => versioned('putOnTrials', { right: await spec(world, 'plover-30-toric', -3, -1.75, 20), left: null });
  it('holds the lens up until a written reason is there, which stays', async () => {
    await say({ lastWorn: 'never', work: ['dust'] });
    expect(await tryOn()).toMatchObject({ ok: false, error: { rule: 'stopWaits', data: { rule: 'dust' } } });
    expect(await versioned('overrideStop', { rule: 'dust', reason: 'closed goggles all day' }, world.callers.technician)).toMatchObject({
      error: { kind: 'forbidden' },
    });
    expect(await versioned('overrideStop', { rule: 'dust', reason: '' })).toMatchObject({ error: { kind: 'invalid' } });
    expect(await versioned('overrideStop', { rule: 'dust', reason: 'closed goggles all day' })).toMatchObject({ ok: true });
    expect((await world.record(visitId)).health.overrides).toMatchObject([
      { rule: 'dust', reason: 'closed goggles all day', overriddenByName: 'Asha Penhallow' },
    ]);
    expect(await tryOn()).toMatchObject({ ok: true });
  });
  it('is asked again when what it rests on has changed', async () => {
    await see({ lidMargin: 2 });
    await versioned('overrideStop', { rule: 'lidMargin', reason: 'old and quiet' });
    expect(await tryOn()).toMatchObject({ ok: true });
    await see({ lidMargin: 3 });
    expect(await tryOn()).toMatchObject({ error: { rule: 'stopWaits' } });
  });
  it('carries over to the next visit until it is looked at again', async () => {
    await see({ lidMargin: 2.5 });
    const { wearer } = await world.record(visitId);
    world.move(60);
    const { visitId: later = '' } = await world.must('openVisit', { wearerId: wearer.id, kind: 'refit' });
    visitId = later;
    expect(await tryOn()).toMatchObject({ error: { rule: 'stopWaits' } });
    await see({ lidMargin: 1 });
    expect(await tryOn()).toMatchObject({ ok: true });
  });
  it('found in a visit opened later, holds in one still open from before', async () => {
    const { wearer } = await world.record(visitId);
    world.move(60);
    const { visitId: later = '' } = await world.must('openVisit', { wearerId: wearer.id, kind: 'refit' });
    await see({ lidMargin: 2.5 }, {}, later);
    expect(await tryOn()).toMatchObject({ error: { rule: 'stopWaits' } });
  });
  it('by a practice’s own threshold', async () => {
    await see({ papillae: 1.5 });
    const lastChangeId = null;
    await world.must('changeSetting', { key: 'actsPapillae', value: 1.5, lastChangeId }, world.callers.admin);
    expect(await tryOn()).toMatchObject({ error: { rule: 'stopWaits', data: { rule: 'papillae' } } });
    const [change] = await world.db.owner<{ id: string }[]>`select id from practice_setting where key = 'actsPapillae' order by sequence desc`;
    await world.must('changeSetting', { key: 'actsPapillae', value: 2, lastChangeId: change?.id }, world.callers.admin);
    expect(await tryOn()).toMatchObject({ ok: true });
  });
  it('a child whose guardian has not agreed', async () => {
    visitId = await freshVisit({ birthDate: '2012-01-01' });
    expect(await tryOn()).toMatchObject({ error: { data: { rule: 'minorWithoutGuardian' } } });
    visitId = await freshVisit({ birthDate: '2012-01-01', guardian: 'an aunt' });
    expect(await tryOn()).toMatchObject({ ok: true });
    await say({ guardian: 'notYet' });
    expect(await tryOn()).toMatchObject({ error: { data: { rule: 'minorWithoutGuardian' } } });
  });
});

describe('a danger sign heard', () => {
  it('holds a lens up until a prescriber has taken note of it; once', async () => {
    await say({ danger: ['vision'] });
    const lens = await spec(world, 'plover-30-toric', -3, -1.75, 20);
    expect(await versioned('putOnTrials', { right: lens, left: null })).toMatchObject(refused('alertWaits'));
    const answerId = (await world.record(visitId)).health.answers.at(-1)?.id;
    expect(await versioned('acknowledgeAlert', { answerId }, world.callers.technician)).toMatchObject({ error: { kind: 'forbidden' } });
    expect(await versioned('acknowledgeAlert', { answerId })).toMatchObject({ ok: true });
    expect(await versioned('acknowledgeAlert', { answerId })).toMatchObject(refused('alertNotOpen'));
    expect(await versioned('putOnTrials', { right: lens, left: null })).toMatchObject({ ok: true });
    // Heard again, it is a new alert; answering otherwise does not take it back, nor does another visit.
    await say({ danger: ['pain'] });
    await say({ danger: ['none'] });
    await say({ danger: null });
    expect(await versioned('putOnTrials', { right: lens, left: null })).toMatchObject(refused('alertWaits'));
    const { wearer } = await world.record(visitId);
    world.move(60);
    const { visitId: later = '' } = await world.must('openVisit', { wearerId: wearer.id, kind: 'refit' });
    expect(await versioned('putOnTrials', { right: lens, left: null }, world.asha, later)).toMatchObject(refused('alertWaits'));
    const heard = (await world.record(later)).health.answers
      .filter((a) => a.question === 'danger' && a.acknowledgedAt === null)
      .find((a) => Array.isArray(a.value) && a.value.includes('pain'));
    expect(await versioned('acknowledgeAlert', { answerId: heard?.id }, world.asha, later)).toMatchObject({ ok: true });
    expect(await versioned('putOnTrials', { right: lens, left: null }, world.asha, later)).toMatchObject({ ok: true });
  });
});

describe('answers', () => {
  it.each([
    [{ lastWorn: 'never', sleptIn: 'never' }, 'neverButWorn'],
    [{ danger: ['none', 'pain'] }, 'noneWithOthers'],
    [{ daysPerWeek: 8 }, 'answerOutOfRange'],
    [{ daysPerWeek: 2.5 }, 'answerNotWhole'],
    [{ nights: 'sometimes' }, 'answerNotOffered'],
    [{ sleptIn: 'never', nights: 'fallsAsleep' }, 'neverSleptButFallsAsleep'],
    [{ sleptIn: 'never', hoursPerDay: 23 }, 'hoursWithoutSleep'],
  ])('%j is refused at its question: %s; nothing of it is kept', async (answers, code) => {
    const result = await say({ budget: 'open', ...answers });
    expect(result).toMatchObject({ ok: false, error: { kind: 'invalid', fields: [{ code }] } });
    expect((await world.record(visitId)).health.answers).toEqual([]);
  });
  it('contradicting what was said before is refused; taking that back settles it', async () => {
    await say({ lastWorn: 'now', sleptIn: 'accident' });
    expect(await say({ lastWorn: 'never' })).toMatchObject({ error: { fields: [{ path: ['answers', 'lastWorn'], code: 'neverButWorn' }] } });
    expect(await say({ lastWorn: 'never', sleptIn: null })).toMatchObject({ ok: true });
  });
  it('stay when answered again: both rows, the later holds', async () => {
    await say({ returns: 'no' });
    await say({ returns: 'yes' });
    const rows = (await world.record(visitId)).health.answers;
    expect(rows.map((r) => r.value)).toEqual(['no', 'yes']);
    await expect(world.db.app`update history_answer set note = 'x'`).rejects.toThrow(/permission denied/);
  });
});

describe('findings', () => {
  it.each([
    [{ kFlatMm: 0 }, 'findingOutOfRange'],
    [{ lidMargin: 2.3 }, 'findingOffStep'],
    [{ lidMargin: 5 }, 'findingOutOfRange'],
    [{ nonsense: 1 }, 'findingUnknown'],
    [{ discharge: 'green' }, 'findingUnknown'],
    [{ kFlatMm: 7.5, kSteepMm: 7.8 }, 'steepFlatterThanFlat'],
    [{ pupilRoom: 6, pupilDim: 4 }, 'dimSmallerThanRoom'],
  ])('%j: %s', async (findings, code) => {
    expect(await see(findings as Record<string, number | string>)).toMatchObject({ ok: false, error: { kind: 'invalid', fields: [{ code }] } });
    expect((await world.record(visitId)).health.findings).toEqual([]);
  });
  it('core, form and database agree on the edges of every sign', async () => {
    const { SIGNS, findingProblem } = await import('../../src/core');
    const { version } = (await world.record(visitId)).visit;
    let looked = 0;
    for (const s of SIGNS) {
      const values =
        s.kind === 'word'
          ? [...s.options, 'nonsense']
          : [s.min, s.max, s.min - s.step, s.max + s.step, ...(s.step >= 0.1 ? [s.min + s.step / 2] : [])].map((v) => Math.round(v * 100) / 100);
      for (const value of values) {
        const fine = findingProblem(s.id, value) === null;
        const id = crypto.randomUUID();
        const stored = await world.db.owner
          .begin(async (tx) => {
            await tx`insert into eye_finding (id, root_id, practice_id, visit_id, visit_version, eye, observed_at, recorded_at, recorded_by, sign, number_value, word_value)
            values (${id}, ${id}, ${world.practiceId}, ${visitId}, ${version}, 'right', now(), now(), ${world.asha.personId}, ${s.id},
              ${typeof value === 'number' ? value : null}, ${typeof value === 'string' ? value : null})`;
            throw new Error('fine');
          })
          .catch((cause: unknown) => (cause instanceof Error && cause.message === 'fine' ? true : false));
        expect(stored, `${s.id} ${value}`).toBe(fine);
        looked += 1;
      }
    }
    expect(looked).toBeGreaterThan(120);
  });
});

describe('the kind of lens', () => {
  it('is kept as decided, with what it was made from; another kind needs its reason', async () => {
    await say({ daysPerWeek: 2, hygieneCare: 'good' });
    expect(await versioned('decideKind', { modality: 'monthly', wear: 'day', reason: null })).toMatchObject({
      error: { fields: [{ path: ['reason'], code: 'kindReasonRequired' }] },
    });
    expect(await versioned('decideKind', { modality: 'monthly', wear: 'overnight', reason: 'wants it' })).toMatchObject(refused('kindNotOffered'));
    expect(await versioned('decideKind', { modality: 'monthly', wear: 'day', reason: 'cost' })).toMatchObject({ ok: true });
    expect((await world.record(visitId)).health.decisions).toMatchObject([
      { recommended: { modality: 'daily' }, chosen: { modality: 'monthly' }, asRecommended: false, reason: 'cost' },
    ]);
    const [stored] = await world.db.owner<{ inputs: { facts: { person: { daysPerWeek: number } } }; settings: { dust: string } }[]>`
      select inputs, settings from kind_decision order by sequence desc limit 1`;
    expect(stored?.inputs.facts.person.daysPerWeek).toBe(2);
    expect(stored?.settings.dust).toBe('stop');
  });
  it('never the lens somebody stopped with, without a reason', async () => {
    await versioned('recordHistory', {
      answers: [
        { question: 'lastWorn', value: 'months', note: null },
        { question: 'whichLens', value: 'monthly', note: 'plover 30 toric' },
        { question: 'whyChange', value: ['dryness'], note: null },
      ],
    });
    const lens = await spec(world, 'plover-30-toric', -3, -1.75, 20);
    expect(await versioned('putOnTrials', { right: lens, left: null })).toMatchObject({
      error: { fields: [{ path: ['despiteReason'], code: 'sameLensAgain' }] },
    });
    expect(await versioned('putOnTrials', { right: lens, left: null, despiteReason: 'dry from the solution' })).toMatchObject({ ok: true });
    expect((await world.record(visitId)).health.overrides).toMatchObject([{ rule: 'sameLensAgain', reason: 'dry from the solution' }]);
  });
});

describe('settings', () => {
  it('are appended with who and when; two who change one: the second is told', async () => {
    const admin = world.callers.admin;
    const { id } = await world.must('changeSetting', { key: 'longHours', value: 11, lastChangeId: null }, admin);
    expect(await world.do('changeSetting', { key: 'longHours', value: 10, lastChangeId: null }, admin)).toMatchObject({
      error: { kind: 'conflict', differs: [{ text: '11', by: 'Merle Vantongeren' }] },
    });
    await world.must('changeSetting', { key: 'longHours', value: 12, lastChangeId: id }, admin);
    const page = (await world.must('readSettings', {})) as unknown as {
      changes: { key: string; value: number }[];
      session: { settings: { longHours: number } };
    };
    expect(page.changes.filter((c) => c.key === 'longHours').map((c) => c.value)).toEqual([12, 11]);
    expect(page.session.settings.longHours).toBe(12);
    await expect(world.db.app`update practice_setting set value = '1'`).rejects.toThrow(/permission denied/);
  });
  it.each([
    ['idleMinutes', 0, 'settingOutOfRange'],
    ['actsPapillae', 2.2, 'settingOffStep'],
    ['dust', 'maybe', 'settingNotOffered'],
    ['cylinderCap', 'yes', 'settingNotOffered'],
    ['nonsense', 1, 'settingNotOffered'],
  ])('%s = %s: %s', async (key, value, code) => {
    expect(await world.do('changeSetting', { key, value, lastChangeId: null }, world.callers.admin)).toMatchObject({
      error: { kind: 'invalid', fields: [{ code }] },
    });
  });
});

describe('pictures', () => {
  const plain = (): Promise<Buffer> =>
    sharp({ create: { width: 64, height: 48, channels: 3, background: '#884422' } })
      .png()
      .toBuffer();
  const keep = (bytes: Uint8Array, declaredType: string) => versioned('recordPicture', { eye: 'right', title: 'slit lamp', declaredType, bytes });
  it('are made anew: what is stored carries nothing of the file but its pixels', async () => {
    const jpeg = await sharp(await plain())
      .withExif({ IFD0: { Artist: 'SECRET-NAME' }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1' } })
      .jpeg()
      .toBuffer();
    const hidden = Buffer.concat([jpeg, Buffer.from('<script>alert(1)</script>')]);
    const kept = await keep(hidden, 'image/jpeg');
    expect(kept).toMatchObject({ ok: true, value: { placeRemoved: true } });
    const [row] = await world.db.owner<{ bytes: Buffer }[]>`select bytes from picture order by recorded_at desc, id limit 1`;
    const stored = row?.bytes ?? Buffer.alloc(0);
    expect(stored.includes('SECRET-NAME')).toBe(false);
    expect(stored.includes('script')).toBe(false);
    expect((await sharp(stored).metadata()).exif).toBeUndefined();
    expect((await keep(await plain(), 'image/png')).ok).toBe(true);
  });
  it('can be read by who may read the record', async () => {
    const kept = (await keep(await plain(), 'image/png')) as unknown as { value: { pictureId: string } };
    expect(await world.do('readPicture', { pictureId: kept.value.pictureId }, world.callers.coordinator)).toMatchObject({
      ok: true,
      value: { mediaType: 'image/jpeg' },
    });
  });
  it.each([
    ['a file that lies about its type', async () => [await plain(), 'image/jpeg'] as const, 'pictureLies'],
    [
      'a drawing with a script',
      () => Promise.resolve([Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'), 'image/svg+xml'] as const),
      'pictureKind',
    ],
    ['a page called a picture', () => Promise.resolve([Buffer.from('<html><script>alert(1)</script></html>'), 'image/png'] as const), 'pictureKind'],
    ['forty megabytes', () => Promise.resolve([Buffer.alloc(40 * 1024 * 1024, 0xff), 'image/jpeg'] as const), 'pictureTooLarge'],
    [
      'the first bytes of a picture, then nothing',
      () => Promise.resolve([Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3, 4]), 'image/jpeg'] as const),
      'pictureUnreadable',
    ],
    ['a picture cut short', async () => [(await plain()).subarray(0, 60), 'image/png'] as const, 'pictureUnreadable'],
  ])('%s is refused: nothing is kept', async (_name, make, code) => {
    const [bytes, type] = await make();
    expect(await keep(bytes, type)).toMatchObject({ ok: false, error: { kind: 'invalid', fields: [{ path: ['picture'], code }] } });
    expect((await world.record(visitId)).health.pictures).toEqual([]);
  });
});
