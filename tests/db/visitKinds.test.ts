import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { proposalOf, proposeVisit, type WearerFile } from '../../src/core';
import { openWorld, SENTENCES, signPair, spec, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

const fileOf = async (record: number): Promise<WearerFile> =>
  (await world.must('readWearer', { wearerId: await world.wearerId(record) })) as unknown as WearerFile;
const proposed = async (record: number) => {
  const file = await fileOf(record);
  return proposeVisit(proposalOf(file, '2026-11-24', 'America/New_York'), 12);
};
const decisions = (visitId: string) =>
  world.db.owner<{ kind: string; fee: number; proposedKind: string; because: string }[]>`
    select kind, fee::float8 as fee, proposed_kind, because from visit_decision where visit_id = ${visitId} order by sequence`;
const open = async (record: number, kind: string, more: object = {}, caller = world.asha) =>
  world.do('openVisit', { wearerId: await world.wearerId(record), kind, ...more }, caller);

describe('what a visit is and costs', () => {
  it('is proposed, and what a person decided is kept beside it', async () => {
    expect(await proposed(4)).toMatchObject({ kind: 'firstFit', because: 'nothingWorn' });
    const done = await open(4, 'lensAnnual', { fee: 40 });
    const visitId = String(done.ok ? done.value['visitId'] : '');
    expect(await decisions(visitId)).toEqual([{ kind: 'lensAnnual', fee: 40, proposedKind: 'firstFit', because: 'nothingWorn' }]);
    const before = (await world.record(visitId)).visit;
    expect(await world.do('changeVisit', { visitId, version: before.version, kind: 'fullAnnual', fee: null })).toMatchObject({ ok: true });
    const record = await world.record(visitId);
    expect(record.visit).toMatchObject({ kind: 'fullAnnual', version: before.version + 1 });
    expect(record.decided).toMatchObject({ fee: 110, proposedKind: 'firstFit', proposedFee: 120, decidedByName: 'Asha Penhallow' });
    // Appended: what was decided first is still to be read.
    expect((await decisions(visitId)).map((d) => d.kind)).toEqual(['lensAnnual', 'fullAnnual']);
    expect(await world.do('changeVisit', { visitId, version: before.version, kind: 'refit', fee: null })).toMatchObject({ error: { kind: 'conflict' } });
    await world.must('closeVisit', { visitId, version: record.visit.version });
  });
  it('costs what the settings say where nobody says otherwise; an odd amount is said at its field', async () => {
    const done = await open(4, 'lensAnnual');
    const visitId = String(done.ok ? done.value['visitId'] : '');
    expect((await decisions(visitId))[0]?.fee).toBe(60);
    await world.must('closeVisit', { visitId, version: 1 });
    for (const fee of [-1, 0.001, Number.NaN, 1e9])
      expect(await open(4, 'refit', { fee })).toMatchObject({ error: { fields: [{ path: ['fee'], code: 'feeShape' }] } });
  });
  it('a coordinator takes a reorder, and turns no reorder into an examination', async () => {
    const { coordinator } = world.callers;
    const done = await open(3, 'reorder', {}, coordinator);
    const visitId = String(done.ok ? done.value['visitId'] : '');
    expect(await world.do('changeVisit', { visitId, version: 1, kind: 'fullAnnual', fee: null }, coordinator)).toMatchObject({ error: { kind: 'forbidden' } });
    expect(await world.do('changeVisit', { visitId, version: 1, kind: 'collection', fee: null }, coordinator)).toMatchObject({ ok: true });
    expect(await world.do('closeVisit', { visitId, version: 2 }, coordinator)).toMatchObject({ ok: true });
    expect(await open(3, 'redEye', {}, coordinator)).toMatchObject({ error: { kind: 'forbidden' } });
  });
});

describe('what the proposal rests on', () => {
  it('lenses ordered under a prescription about to end; an examination elsewhere makes it lens-only', async () => {
    const visitId = await world.visit(2, { right: '-2.00', left: '-2.25' });
    const prescriptionId = await signPair(world, visitId);
    await world.must('placeOrder', {
      visitId,
      version: await world.version(visitId),
      requestKey: crypto.randomUUID(),
      prescriptionId,
      rightPacks: 1,
      leftPacks: 1,
    });
    await world.must('closeVisit', { visitId, version: await world.version(visitId) });
    // Fitted today, a straight lens.
    expect(await proposed(2)).toMatchObject({ kind: 'shortFollowUp' });
    const file = await fileOf(2);
    const inAYear = (change: Partial<WearerFile> = {}) => proposeVisit(proposalOf({ ...file, ...change }, '2027-11-01', 'America/New_York'), 12).kind;
    expect(inAYear({ newestOf: { firstFit: '2025-11-01T15:00:00Z' } })).toBe('fullAnnual');
    const wearerId = await world.wearerId(2);
    for (const [examinedOn, code] of [
      ['1 Jan 2030', 'dayInFuture'],
      ['1 Jan 1901', 'beforeBirth'],
      ['', 'dayRequired'],
    ])
      expect(await world.do('recordExamined', { wearerId, examinedOn, byWhom: 'the harbour clinic' })).toMatchObject({
        error: { fields: [{ path: ['examinedOn'], code }] },
      });
    await world.must('recordExamined', { wearerId, examinedOn: '2 Nov 2026', byWhom: 'the harbour clinic' }, world.callers.coordinator);
    const { examinedElsewhere } = await fileOf(2);
    expect(examinedElsewhere).toMatchObject({ examinedOn: '2026-11-02', byWhom: 'the harbour clinic', recordedByName: 'Renny Okoro-Vale' });
    expect(inAYear({ newestOf: { firstFit: '2025-11-01T15:00:00Z' }, examinedElsewhere })).toBe('lensAnnual');
    // A visit is no reason for itself: a refit that begins is not followed up on its first day.
    world.move(340 * 24 * 3600);
    for (const kind of ['refit', 'fullAnnual']) {
      const done = await open(2, kind);
      const id = String(done.ok ? done.value['visitId'] : '');
      expect(await decisions(id)).toMatchObject([{ kind, proposedKind: 'lensAnnual', because: 'annualExamined' }]);
      await world.must('closeVisit', { visitId: id, version: 1 });
      await world.db.owner`update visit set kind = 'lesson' where id = ${id}`;
    }
    world.move(-340 * 24 * 3600);
  });
  it('a final prescription need not wait at a follow-up, whichever', async () => {
    for (const [kind, waits] of [
      ['refit', true],
      ['shortFollowUp', false],
      ['lensAnnual', false],
    ] as const) {
      const visitId = await world.visit(3, { right: '-2.00', left: '-2.25' }, kind);
      const right = { mode: 'final', lens: await spec(world, 'turnstone-30', -2, 0, 180, 8.4, 14.2), triedLensOnEyeId: null };
      const terms = { expiresOn: '2027-11-20', waitNote: '', daysPerWeek: 7, overrides: SENTENCES };
      const signing = { visitId, version: 2, password: 'plain-sight', right, left: null, ...terms };
      const said = JSON.stringify(await world.do('sign', signing));
      expect(said.includes('waitNoteRequired'), kind).toBe(waits);
      await world.must('closeVisit', { visitId, version: await world.version(visitId) });
    }
  });
});
