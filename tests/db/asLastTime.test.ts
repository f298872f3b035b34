import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { earlierGrades, eyesOfVisit, type Eye } from '../../src/core';
import { healthOfRecord } from '../../src/features/visit/shell/health';
import { lensesOfRecord } from '../../src/features/visit/shell/lenses';
import { openWorld, spec, type World } from './support';

let world: World;
let first: string;
beforeAll(async () => {
  world = await openWorld();
  first = await firstVisit();
}, 60_000);
afterAll(() => world.db.close());

const YEAR = 365 * 24 * 3600;
const NUMBER = 1;
const at = async (visitId: string) => ({ visitId, version: await world.version(visitId) });
const onOf = async (visitId: string, eye: Eye) => (await world.record(visitId)).facts.onEye.findLast((c) => c.current?.eye === eye)?.current;

/** Fitted with torics, R turned 10° to the examiner's left, and graded. */
async function firstVisit(): Promise<string> {
  const visitId = await world.visit(NUMBER, { right: '-3.25 -1.75 x 20', left: '-4.50 -1.25 x 165' });
  const inHand = { lot: 'T-1', expiresOn: '1 Mar 2032' };
  const right = { ...(await spec(world, 'plover-30-toric', -3, -1.75, 30)), inHand };
  const left = { ...(await spec(world, 'plover-30-toric', -4.25, -1.25, 160)), inHand };
  await world.must('putOnTrials', { ...(await at(visitId)), right, left, despiteReason: 'known wearer' });
  world.move(15 * 60);
  const read = async (eye: Eye, turns: readonly number[]) => ({
    lensOnEyeId: (await onOf(visitId, eye))?.rootId,
    vertexMm: 12,
    blinks: turns.map((rotationLeft) => ({ rotationLeft, how: 'drag' })),
  });
  await world.must('recordOnEye', { ...(await at(visitId)), right: await read('right', [10, 9, 11]), left: await read('left', [-20, 10, 3, -9, 14]) });
  const graded = [
    { sign: 'staining', value: 0 },
    { sign: 'lidMargin', value: 0.5 },
    { sign: 'lashes', value: 0 },
  ];
  await world.must('recordFindings', { ...(await at(visitId)), right: graded, left: graded });
  const box = async (eye: Eye) => ({ lensOnEyeId: (await onOf(visitId, eye))?.rootId, lot: 'T-1', expiresOn: '2032-03-01', lensCount: 1 });
  await world.must('handOver', { ...(await at(visitId)), right: await box('right'), left: await box('left'), experienceNote: 'wears since 2015' });
  const late = [{ sign: 'papillae', value: 3 }];
  await world.must('recordFindings', { ...(await at(visitId)), right: late, left: late });
  await world.must('closeVisit', await at(visitId));
  return visitId;
}
/** The visit a year later, in the lenses that were handed over. */
async function yearLater(): Promise<string> {
  world.move(YEAR);
  const { visitId = '' } = await world.must('openVisit', { wearerId: await world.wearerId(NUMBER), kind: 'lensAnnual' });
  const { worn } = await world.record(visitId);
  const yes = (eye: Eye) => ({ answer: 'yes', lensId: worn[eye]?.lensId });
  await world.must('answerWorn', { ...(await at(visitId)), right: yes('right'), left: yes('left'), since: { time: '7' } });
  return visitId;
}
const stateOf = async (visitId: string, eye: Eye) => {
  const record = await world.record(visitId);
  const health = healthOfRecord(record, { right: null, left: null });
  const { age } = record.wearer;
  return eyesOfVisit(record.facts, lensesOfRecord(record), record.session.settings, {
    age,
    bestBefore: record.bestBefore,
    knownTurns: record.knownTurns,
    health,
    nearFindings: record.nearFindings,
    addsBefore: record.addsBefore,
  })[eye];
};
const look = async (visitId: string, eye: Eye, rotationLeft: number) => {
  const reading = { lensOnEyeId: (await onOf(visitId, eye))?.rootId, vertexMm: 12, blinks: [{ rotationLeft, how: 'look' }] };
  return world.do('recordOnEye', { ...(await at(visitId)), right: eye === 'right' ? reading : null, left: eye === 'left' ? reading : null });
};

describe('a known turn', () => {
  it('one look confirms it: with the blinks of last year the same lens is to be ordered; elsewhere it is refused', async () => {
    const visitId = await yearLater();
    expect(await stateOf(visitId, 'right')).toMatchObject({ turnKnown: 10, turn: null });
    expect(await look(visitId, 'right', 0)).toMatchObject({ ok: false, error: { fields: [{ path: ['right', 'blinks'], code: 'turnNotKnown' }] } });
    expect(await look(visitId, 'right', 10)).toMatchObject({ ok: true });
    const reading = { lensOnEyeId: (await onOf(visitId, 'right'))?.rootId, vertexMm: 12, overRefraction: '0.00', plusHalf: 'worse' };
    await world.must('recordOnEye', { ...(await at(visitId)), right: reading, left: null });
    const state = await stateOf(visitId, 'right');
    expect(state.turn).toMatchObject({ count: 4, mean: 10 });
    expect(state.turnConfirms?.readings).toEqual([10, 9, 11]);
    expect(state.verdict.noOrder).toBeNull();
    expect(state.verdict.need?.axis).toBeCloseTo(20, 6);
    expect(state.verdict.rotation?.compensated?.lens.power).toEqual({ sphere: -3, cylinder: -1.75, axis: 30 });
    world.move(-YEAR);
  });
  it('a turn that was not stable is not known, and cannot be confirmed', async () => {
    const visitId = await yearLater();
    expect((await stateOf(visitId, 'left')).turnKnown).toBeNull();
    expect(await look(visitId, 'left', 0)).toMatchObject({ error: { fields: [{ code: 'turnNotKnown' }] } });
    world.move(-YEAR);
  });
  it('a look is no series: the year after still rests on the blinks that were read', async () => {
    const visitId = await yearLater();
    await look(visitId, 'right', 12);
    await world.must('closeVisit', await at(visitId));
    const next = await yearLater();
    expect((await world.record(next)).knownTurns.find((k) => k.readings.includes(9))?.readings).toEqual([10, 9, 11]);
    world.move(-2 * YEAR);
  });
});

describe('grades as last time', () => {
  const gradesOf = async (visitId: string, eye: Eye) => {
    const { health, session } = await world.record(visitId);
    return earlierGrades(health.findings, eye, { visitId, today: session.today, timeZone: session.practice.timeZone, settings: session.settings });
  };
  const record = async (visitId: string, more: object) => world.do('recordFindings', { ...(await at(visitId)), right: [], left: [], ...more });
  const id = async (visitId: string, sign: string, eye: Eye = 'right') => (await gradesOf(visitId, eye)).find((g) => g.sign === sign)?.findingId;

  it('only of an eye that is looked at; they keep their day, and are no point of the trend', async () => {
    const visitId = await yearLater();
    const lids = await id(visitId, 'lidMargin');
    expect(await record(visitId, { rightAsLastTime: [lids] })).toMatchObject({ error: { fields: [{ path: ['right', 'staining'], code: 'lookFirst' }] } });
    const staining = [{ sign: 'staining', value: 0 }];
    // The other eye's stain is not this one's.
    expect(await record(visitId, { left: staining, rightAsLastTime: [lids] })).toMatchObject({ ok: false });
    expect(await record(visitId, { right: staining, rightAsLastTime: [lids, await id(visitId, 'lashes')], lensOff: ['right'] })).toMatchObject({ ok: true });
    const { health, facts, trend } = await world.record(visitId);
    const copy = health.findings.find((c) => c.current?.visitId === visitId && c.current.sign === 'lidMargin')?.current;
    expect(copy).toMatchObject({ numberValue: 0.5, copiedFromId: lids });
    expect(copy?.observedAt.slice(0, 10)).toBe('2026-11-24');
    const [seen] = facts.onEye.filter((c) => c.current?.eye === 'right').map((c) => facts.onEyeExtras.find((e) => e.lensOnEyeId === c.rootId));
    expect(seen?.takenOffAt).not.toBeNull();
    await world.must('closeVisit', await at(visitId));
    // Two years on the trend has the one look, and the grade is too old to be said again.
    world.move(YEAR + 24 * 3600);
    const next = await yearLater();
    expect(trend.right.lidMargin?.length).toBeGreaterThan(0);
    expect((await world.record(next)).trend.right.lidMargin).toEqual(trend.right.lidMargin);
    expect((await gradesOf(next, 'right')).find((g) => g.sign === 'lidMargin')).toMatchObject({ bar: 'old', seenAt: copy?.observedAt });
    expect(await record(next, { right: staining, rightAsLastTime: [await id(next, 'lidMargin')] })).toMatchObject({
      error: { fields: [{ path: ['right', 'lidMargin'], code: 'gradeAnew' }] },
    });
    world.move(-3 * YEAR - 24 * 3600);
  });
  it('what called for action is graded again; a finding of another eye, sign or wearer is refused', async () => {
    const visitId = await yearLater();
    const staining = [{ sign: 'staining', value: 0 }];
    expect(await record(visitId, { right: staining, rightAsLastTime: [await id(visitId, 'papillae')] })).toMatchObject({
      error: { fields: [{ path: ['right', 'papillae'], code: 'gradeAnew' }] },
    });
    expect(await record(visitId, { right: staining, rightAsLastTime: [await id(visitId, 'lidMargin', 'left')] })).toMatchObject({
      error: { kind: 'conflict' },
    });
    expect(await record(visitId, { right: staining, rightAsLastTime: [crypto.randomUUID()] })).toMatchObject({ error: { kind: 'conflict' } });
    expect((await world.record(visitId)).health.findings.filter((c) => c.current?.visitId === visitId)).toEqual([]);
    world.move(-YEAR);
  });
  it('the database copies neither stain nor chamber', async () => {
    const insert = (sign: string) => world.db.owner`
      insert into eye_finding (id, root_id, practice_id, visit_id, visit_version, eye, observed_at, recorded_at, recorded_by, sign, number_value, word_value, copied_from_id)
      select x, x, practice_id, visit_id, visit_version, eye, observed_at, recorded_at, recorded_by, sign, number_value, word_value, f.id
      from eye_finding f, (select gen_random_uuid() as x) i where visit_id = ${first} and sign = ${sign} limit 1`;
    await expect(insert('staining')).rejects.toThrow(/eye_finding_copied_check/);
    await expect(insert('lashes')).resolves.toBeDefined();
  });
});

describe('history, read back', () => {
  it('is kept as answered today, and as read back', async () => {
    const visitId = await yearLater();
    await world.must('recordHistory', {
      ...(await at(visitId)),
      answers: [
        { question: 'goals', value: ['sport'], note: null, readBack: true },
        { question: 'danger', value: ['none'], note: null },
      ],
    });
    const { answers } = (await world.record(visitId)).health;
    expect(answers.filter((a) => a.visitId === visitId).map((a) => [a.question, a.readBack])).toEqual([
      ['goals', true],
      ['danger', false],
    ]);
    world.move(-YEAR);
  });
});
