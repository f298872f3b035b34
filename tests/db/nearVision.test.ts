import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aimsOfVisit, nearState } from '../../src/core';
import { eyesOfRecord } from '../../src/features/visit/shell/eyes';
import { lensesOfRecord } from '../../src/features/visit/shell/lenses';
import { fillDrawer } from '../support/drawer';
import { newWearer, openWorld, spec, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
  await fillDrawer(world.db.owner, 20, { code: 'curlew-multifocal' });
}, 60_000);
afterAll(() => world.db.close());

const at = async (visitId: string) => ({ visitId, version: await world.version(visitId) });
/** A presbyope's visit, with powers and additions. */
async function presbyope(powers: { readonly right: string; readonly left: string } = { right: '-2.00', left: '-2.25' }) {
  const record = await newWearer(world);
  const visitId = await world.visit(record, powers);
  await world.must('recordRefraction', {
    ...(await at(visitId)),
    ...powers,
    vertexMm: 12,
    rightAdd: '+1.50',
    leftAdd: '+1.50',
    addSource: 'measured',
    nearCm: 40,
  });
  const keep = async (findings: readonly { readonly sign: string; readonly value: number | string }[], caller = world.callers.technician) =>
    world.do('recordNearFindings', { ...(await at(visitId)), findings }, caller);
  const decide = async (way: string, reason = '', caller = world.asha) => world.do('decideNearWay', { ...(await at(visitId)), way, reason }, caller);
  return { record, visitId, keep, decide };
}
const near = async (visitId: string) => nearState((await world.record(visitId)).nearFindings);
const needOf = async (visitId: string) => {
  const record = await world.record(visitId);
  const eyes = eyesOfRecord(record, lensesOfRecord(record));
  return { right: eyes.right.verdict.need?.sphere, left: eyes.left.verdict.need?.sphere };
};

describe('near sight and both eyes', () => {
  it('is kept as it is found, the newest of each counts, and the next visit begins with it', async () => {
    const of = await presbyope();
    expect(
      await of.keep([
        { sign: 'dominanceBlur', value: 'left' },
        { sign: 'phone', value: 33 },
      ]),
    ).toMatchObject({ ok: true });
    expect(await of.keep([{ sign: 'phone', value: 38 }])).toMatchObject({ ok: true });
    expect(await near(of.visitId)).toMatchObject({ dominanceBlur: 'left', tasks: [{ task: 'phone', cm: 38 }] });
    const [rows] = await world.db.owner<{ n: number }[]>`select count(*)::int as n from near_finding where visit_id = ${of.visitId}`;
    expect(rows?.n).toBe(3);
    expect(await of.keep([{ sign: 'phone', value: 0 }])).toMatchObject({ ok: true });
    expect((await near(of.visitId)).tasks).toEqual([]);
    await world.must('closeVisit', await at(of.visitId));
    const next = await world.visit(of.record, { right: '-2.00', left: null });
    expect((await near(next)).dominanceBlur).toBe('left');
  });
  it.each([
    [{ sign: 'stereo', value: 2000 }, 'stereoOutOfRange'],
    [{ sign: 'phone', value: 5 }, 'distanceOutOfRange'],
    [{ sign: 'coverTest', value: 'sideways' }, 'notUnderstood'],
  ])('%o is refused at its value', async (finding, code) => {
    const of = await presbyope();
    expect(await of.keep([finding])).toMatchObject({ error: { fields: [{ path: ['findings', '0', 'value'], code }] } });
    expect(await of.keep([])).toMatchObject({ error: { kind: 'invalid' } });
  });
  it('a decision is no finding, and a coordinator records neither', async () => {
    const of = await presbyope();
    expect(await of.keep([{ sign: 'way', value: 'readers' }])).toMatchObject({ error: { kind: 'invalid' } });
    expect(await of.keep([{ sign: 'stereo', value: 40 }], world.callers.coordinator)).toMatchObject({ error: { kind: 'forbidden' } });
  });
});

describe('how near is served', () => {
  it('as recommended by one press; another way with a reason; a barred one only by a prescriber with a reason', async () => {
    const of = await presbyope();
    expect(await of.decide('multifocal', '', world.callers.technician)).toMatchObject({ ok: true });
    expect(await of.decide('readers')).toMatchObject({ error: { fields: [{ path: ['reason'], code: 'wayReasonRequired' }] } });
    expect(await of.decide('readers', 'wants nothing new')).toMatchObject({ ok: true });
    expect(await of.decide('toricMultifocal', 'asked for it', world.callers.technician)).toMatchObject({ error: { rule: 'wayBarred' } });
    expect(await of.decide('toricMultifocal')).toMatchObject({ error: { fields: [{ code: 'wayReasonRequired' }] } });
    expect(await of.decide('toricMultifocal', 'family makes no other')).toMatchObject({ ok: true });
    expect((await near(of.visitId)).way).toBe('toricMultifocal');
  });
  it('eyes are set apart only after cover test, history of squint and stereo, or by a prescriber who says why', async () => {
    const of = await presbyope();
    expect(await of.decide('monovision', 'wore it', world.callers.technician)).toMatchObject({ error: { rule: 'wayNeedsTests' } });
    await of.keep([
      { sign: 'coverTest', value: 'straight' },
      { sign: 'oldSquint', value: 'no' },
      { sign: 'stereo', value: 40 },
    ]);
    expect(await of.decide('monovision', 'wore it for years', world.callers.technician)).toMatchObject({ ok: true });
  });
  it('a near eye is served nearer by its addition, the dominant one far; the required power says so', async () => {
    const of = await presbyope();
    const far = await needOf(of.visitId);
    await of.keep([{ sign: 'dominanceBlur', value: 'left' }]);
    expect(await of.decide('monovision', 'wore it for years')).toMatchObject({ ok: true });
    const record = await world.record(of.visitId);
    expect(aimsOfVisit(record, record.facts.refractions)).toMatchObject({ right: { sees: 'near', plus: 1.5 }, left: { sees: 'far' } });
    const now = await needOf(of.visitId);
    expect(now.right).toBeCloseTo((far.right ?? 0) + 1.5, 9);
    expect(now.left).toBe(far.left);
  });
});

describe('a pair judged with both eyes', () => {
  /** A pair of multifocals on the eyes. */
  async function paired() {
    const of = await presbyope();
    const lens = async (sphere: number, add: string) => ({ ...(await spec(world, 'curlew-multifocal', sphere, 0, 180, 8.6, 14.1)), add });
    await world.must('putOnTrials', { ...(await at(of.visitId)), right: await lens(-1.75, 'low'), left: await lens(-2.25, 'low') });
    const on = async () => {
      const { onEye } = (await world.record(of.visitId)).facts;
      const newest = (eye: string) => onEye.filter((c) => c.current?.eye === eye).at(-1)?.rootId ?? '';
      return { rightLensOnEyeId: newest('right'), leftLensOnEyeId: newest('left') };
    };
    const judge = async (satisfaction: number, more: object = {}) =>
      world.do('recordPairReading', {
        ...(await at(of.visitId)),
        ...(await on()),
        tasks: [
          { task: 'road', distanceCm: 600, acuity: { logMar: 0, typed: '20/20' }, satisfaction: 9 },
          { task: 'phone', distanceCm: 35, acuity: { logMar: 0.4, typed: '20/50' }, satisfaction },
        ],
        held: [],
        ...more,
      });
    const change = async (wanted: object) => world.do('keepPairChange', { ...(await at(of.visitId)), ...(await on()), change: wanted });
    return { ...of, on, judge, change, lens };
  }

  it('is kept task by task; a change is kept with what is foretold of it, once the pair was judged', async () => {
    const of = await paired();
    expect(await of.change({ kind: 'sphere', eye: 'left', by: 0.25 })).toMatchObject({ error: { rule: 'pairNotJudged' } });
    expect(await of.judge(3)).toMatchObject({ ok: true });
    expect(await of.change({ kind: 'swap' })).toMatchObject({ error: { rule: 'changeNotOffered' } });
    expect(await of.change({ kind: 'sphere', eye: 'left', by: 0.25 })).toMatchObject({ ok: true });
    const { pairChanges, taskSights } = (await world.record(of.visitId)).facts;
    expect(taskSights.map((c) => c.current?.task)).toEqual(['road', 'phone']);
    expect(pairChanges[0]?.current).toMatchObject({ change: 'sphere left +0.25' });
    expect(pairChanges[0]?.current?.foretold).toHaveLength(2);
    expect(pairChanges[0]?.current?.foretold[1]).toMatch(/^2\.86 0\.40 -?\d\.\d\d \d+\.\d$/);
  });
  it('a forecast is scored by the pair that followed, and the practice sees it; another pair tells nothing of it', async () => {
    const figures = async () => (await world.must('readFigures', {})).forecasts as unknown as Record<string, number | null>;
    const before = (await figures()).tasks ?? 0;
    const of = await paired();
    await of.judge(3);
    await of.change({ kind: 'sphere', eye: 'left', by: 0.25 });
    expect((await figures()).tasks).toBe(before);
    await world.must('putOnTrials', { ...(await at(of.visitId)), right: null, left: await of.lens(-2, 'low') });
    world.move(60);
    await of.judge(6);
    expect(await figures()).toMatchObject({ tasks: before + 2, read: before + 2, tooHopefulLines: expect.any(Number) as number });
    // A second change that nobody followed: the lens put on is another one.
    await of.change({ kind: 'sphere', eye: 'right', by: 0.25 });
    await world.must('putOnTrials', { ...(await at(of.visitId)), right: await of.lens(-1.25, 'low'), left: null });
    world.move(60);
    await of.judge(7);
    expect((await figures()).tasks).toBe(before + 2);
  });
  it('what is read through a pair that is on the eyes no more is refused', async () => {
    const of = await paired();
    const before = await of.on();
    await world.must('putOnTrials', { ...(await at(of.visitId)), right: null, left: await of.lens(-2, 'low') });
    expect(await of.judge(3, before)).toMatchObject({ error: { rule: 'pairNotOn', data: { eye: 'left' } } });
    expect(await of.judge(3)).toMatchObject({ ok: true });
  });
  it.each([
    [{ tasks: [], held: [] }, 'nothingToRecord'],
    [{ tasks: [{ task: 'phone', distanceCm: 5, satisfaction: 3 }] }, 'distanceOutOfRange'],
    [{ tasks: [{ task: 'phone', distanceCm: 35 }] }, 'satisfactionRequired'],
  ])('%o is refused: %s', async (more, code) => {
    const of = await paired();
    expect(JSON.stringify(await of.judge(3, more))).toContain(code);
  });
});
