import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { careTopicsFor } from '../../src/core';
import { finishLesson, openWorld, spec, type World } from './support';
import { fillDrawer } from '../support/drawer';

let world: World;
let visitId: string;
let version: number;
let onEye: Record<'right' | 'left', string>;

beforeAll(async () => {
  world = await openWorld();
});
afterAll(() => world.db.close());

const facts = async () => (await world.record(visitId)).facts;
async function change(name: Parameters<World['must']>[0], input: object): Promise<Record<string, string & number>> {
  const done = await world.must(name, { visitId, version, ...input });
  version = done.version ?? version + 1;
  return done;
}

/** A visit with a lens on each eye, both read. */
beforeEach(async () => {
  await fillDrawer(world.db.owner, 20);
  visitId = await world.visit();
  version = 2;
  await change('putOnTrials', { right: await spec(world, 'plover-30-toric', -3, -1.75, 20), left: await spec(world, 'plover-30-toric', -4.25, -1.25, 160) });
  const on = (await facts()).onEye;
  const idOf = (eye: string): string => on.find((c) => c.current?.eye === eye)?.rootId ?? '';
  onEye = { right: idOf('right'), left: idOf('left') };
  const reading = (lensOnEyeId: string, rotationLeft: number, overRefraction: string) => ({
    lensOnEyeId,
    fit: 'fits',
    blinks: [{ rotationLeft }],
    overRefraction,
    sureOfLens: true,
    vertexMm: 12,
  });
  await change('recordOnEye', { right: reading(onEye.right, 10, '+0.25 -0.50 x 70'), left: reading(onEye.left, -5, 'plano') });
});

describe('every recorded value can be corrected, with its reason, and the old one stays', () => {
  it.each([
    ['rotation', 'rotations', { as: 'rotation', rotationLeft: -12 }, { rotationLeftDeg: -12, how: 'typed' }],
    ['fit', 'fits', { as: 'fit', verdict: 'loose' }, { verdict: 'loose' }],
    [
      'overRefraction',
      'overRefractions',
      { as: 'power', text: '+0.50 -0.25 x 80', vertexMm: 14 },
      { sphereD: 0.5, cylinderD: -0.25, axisDeg: 80, vertexMm: 14, typedText: '+0.50 -0.25 x 80' },
    ],
    ['refraction', 'refractions', { as: 'power', text: '-2.00', vertexMm: 12 }, { sphereD: -2, cylinderD: 0, axisDeg: 180 }],
  ] as const)('%s', async (kind, list, value, now) => {
    const before = (await facts())[list].find((c) => c.current?.eye === 'right');
    await change('correct', { kind, factId: before?.current?.id, reason: 'looked again', value });
    const after = (await facts())[list].find((c) => c.rootId === before?.rootId);
    expect(after?.current).toMatchObject({ ...now, eye: 'right', reason: 'looked again', voided: false });
    expect(after?.rows[0]).toEqual(before?.rows[0]);
    expect(after?.rows).toHaveLength(2);
  });
  it.each([
    ['rotation', 'rotations'],
    ['fit', 'fits'],
    ['overRefraction', 'overRefractions'],
    ['refraction', 'refractions'],
  ] as const)('%s can be taken back', async (kind, list) => {
    const before = (await facts())[list].find((c) => c.current?.eye === 'left');
    await change('correct', { kind, factId: before?.current?.id, reason: 'other eye', value: null });
    const after = (await facts())[list].find((c) => c.rootId === before?.rootId);
    expect(after?.current).toBeNull();
    expect(after?.rows).toHaveLength(2);
  });
  it('a corrected value is observed when it was observed, and recorded when it was corrected', async () => {
    const before = (await facts()).rotations[0]?.current;
    world.move(90);
    await change('correct', { kind: 'rotation', factId: before?.id, reason: 'slip', value: { as: 'rotation', rotationLeft: 1 } });
    const after = (await facts()).rotations.find((c) => c.rootId === before?.rootId)?.current;
    expect(after?.observedAt).toBe(before?.observedAt);
    expect(after?.recordedAt).not.toBe(before?.recordedAt);
  });
  it('a bad new value is refused at its field and the old one holds', async () => {
    const factId = (await facts()).overRefractions.find((c) => c.current?.eye === 'right')?.current?.id;
    const base = { visitId, version, kind: 'overRefraction', factId, reason: 'slip' };
    expect(await world.do('correct', { ...base, value: { as: 'power', text: '300', vertexMm: 12 } })).toMatchObject({
      error: { fields: [{ path: ['value', 'text'], code: 'bareNumber' }] },
    });
    expect(await world.do('correct', { ...base, value: { as: 'power', text: '-1.00', vertexMm: 30 } })).toMatchObject({
      error: { fields: [{ path: ['value', 'vertexMm'] }] },
    });
    expect((await facts()).overRefractions.find((c) => c.current?.eye === 'right')?.rows).toHaveLength(1);
  });
  it('a fact of another visit is not found from here', async () => {
    const factId = (await facts()).rotations[0]?.current?.id;
    const other = await world.visit(3);
    expect(await world.do('correct', { visitId: other, version: 2, kind: 'rotation', factId, reason: 'slip', value: null })).toMatchObject({
      error: { kind: 'notFound' },
    });
  });
  it('a lens that never went on goes back to the drawer; its readings no longer count', async () => {
    const [before] = await world.db.owner<{ n: number }[]>`select sum(count)::int as n from trial_stock`;
    await change('correct', { kind: 'lensOnEye', factId: onEye.right, reason: 'wrong wearer', value: null, backInDrawer: true });
    const [after] = await world.db.owner<{ n: number }[]>`select sum(count)::int as n from trial_stock`;
    expect((after?.n ?? 0) - (before?.n ?? 0)).toBe(1);
    expect((await facts()).onEye.find((c) => c.rootId === onEye.right)?.current).toBeNull();
    expect(
      await world.do('recordOnEye', {
        visitId,
        version,
        right: { lensOnEyeId: onEye.left, fit: 'fits', overRefraction: null, vertexMm: 12 },
        left: null,
      }),
    ).toMatchObject({ error: { kind: 'notFound' } });
  });
});

describe('right and left mixed up', () => {
  it('over-refractions change places, each staying with the lens of its eye', async () => {
    await change('swapEyes', { kind: 'overRefraction', reason: 'phoropter swapped' });
    const over = (await facts()).overRefractions;
    const of = (eye: string) => over.find((c) => c.current?.eye === eye)?.current;
    expect(of('right')).toMatchObject({ sphereD: 0, cylinderD: 0, lensOnEyeId: onEye.right });
    expect(of('left')).toMatchObject({ sphereD: 0.25, cylinderD: -0.5, axisDeg: 70, lensOnEyeId: onEye.left });
  });
  it('marks change places', async () => {
    await change('swapEyes', { kind: 'rotation', reason: 'read the wrong eye' });
    const marks = (await facts()).rotations.map((c) => [c.current?.eye, c.current?.rotationLeftDeg]);
    expect(marks).toEqual(
      expect.arrayContaining([
        ['right', -5],
        ['left', 10],
      ]),
    );
  });
  it('lenses change places with their lots; readings stay with the eye', async () => {
    const before = (await facts()).onEye.map((c) => [c.current?.eye, c.current?.lensId, c.current?.lot]);
    await change('swapEyes', { kind: 'lensOnEye', reason: 'boxes swapped' });
    const now = (await facts()).onEye;
    const lot = (rows: unknown[][], eye: string) => rows.find((r) => r[0] === eye)?.[2];
    const after = now.map((c) => [c.current?.eye, c.current?.lensId, c.current?.lot]);
    expect(lot(after, 'right')).toBe(lot(before, 'left'));
    expect(lot(after, 'left')).toBe(lot(before, 'right'));
    expect((await facts()).rotations.find((c) => c.current?.eye === 'right')?.current?.lensOnEyeId).toBe(onEye.right);
  });
  it('needs a value on both eyes', async () => {
    const one = await world.visit(4, { right: '-1.00', left: null });
    expect(await world.do('swapEyes', { visitId: one, version: 2, kind: 'refraction', reason: 'mixed up' })).toMatchObject({
      error: { rule: 'bothEyesNeeded' },
    });
  });
  it('an unknown lens cannot take the place of a confirmed one', async () => {
    const mixed = await world.visit(5);
    await world.must('recordBroughtIn', { visitId: mixed, version: 2, eye: 'right', description: 'blue box', power: null, how: null });
    await world.must('putOnTrials', { visitId: mixed, version: 3, right: null, left: await spec(world, 'turnstone-30', -2, 0, 180, 8.4, 14.2) });
    expect(await world.do('swapEyes', { visitId: mixed, version: 4, kind: 'lensOnEye', reason: 'mixed up' })).toMatchObject({
      error: { rule: 'unknownLensSwap' },
    });
  });
});

describe('taking lenses off and confirming them', () => {
  it('a lens that is off takes no readings; another trial takes the one before it off', async () => {
    await change('takeOff', { lensOnEyeIds: [onEye.right] });
    const reading = { lensOnEyeId: onEye.right, fit: 'fits', overRefraction: null, vertexMm: 12 };
    expect(await world.do('recordOnEye', { visitId, version, right: reading, left: null })).toMatchObject({
      error: { rule: 'lensTakenOff', data: { eye: 'right' } },
    });
    await change('putOnTrials', { right: null, left: await spec(world, 'plover-30-toric', -4.25, -1.25, 170) });
    const all = await facts();
    expect(all.onEyeExtras.find((e) => e.lensOnEyeId === onEye.left)?.takenOffAt).not.toBeNull();
    expect(all.onEye.filter((c) => c.current?.eye === 'left').map((c) => c.current?.trialNumber)).toEqual([1, 2]);
  });
  it('taken off by mistake: withdrawn once with a reason, readings go on; not once another lens is on', async () => {
    await change('takeOff', { lensOnEyeIds: [onEye.right] });
    expect(await world.do('putBack', { visitId, version, lensOnEyeId: onEye.right, reason: '' })).toMatchObject({ error: { fields: [{ path: ['reason'] }] } });
    await change('putBack', { lensOnEyeId: onEye.right, reason: 'wrong button' });
    expect((await facts()).onEyeExtras.find((e) => e.lensOnEyeId === onEye.right)).toMatchObject({ takenOffAt: null, withdrawnReason: 'wrong button' });
    await change('recordOnEye', { right: { lensOnEyeId: onEye.right, fit: 'tight', overRefraction: null, vertexMm: 12 }, left: null });
    expect(await world.do('putBack', { visitId, version, lensOnEyeId: onEye.left, reason: 'never off' })).toMatchObject({ error: { rule: 'notTakenOff' } });
    await change('putOnTrials', { right: null, left: await spec(world, 'plover-30-toric', -4.25, -1.25, 170) });
    expect(await world.do('putBack', { visitId, version, lensOnEyeId: onEye.left, reason: 'never off' })).toMatchObject({ error: { rule: 'anotherLensOn' } });
  });
  it('a lens with a known power can be confirmed afterwards, by box or by word', async () => {
    await change('recordBroughtIn', { eye: 'left', description: 'Heron', power: '-2.00', how: null });
    const brought = (await facts()).onEye.find((c) => c.current?.source === 'broughtIn')?.rootId;
    const reading = { lensOnEyeId: brought, fit: null, overRefraction: '+0.25', vertexMm: 12, sureOfLens: true };
    expect(await world.do('recordOnEye', { visitId, version, right: null, left: reading })).toMatchObject({ error: { fields: [{ code: 'lensUnconfirmed' }] } });
    await change('confirmLens', { lensOnEyeId: brought, how: 'boxSeen' });
    await change('recordOnEye', { right: null, left: reading });
    expect((await facts()).overRefractions.filter((c) => c.current?.lensOnEyeId === brought)).toHaveLength(1);
  });
});

describe('the lesson’s entries and the hand-over', () => {
  it('a try, a topic and a box can be corrected; the counts follow', async () => {
    const { lessonId } = await change('startLesson', {});
    for (const eye of ['right', 'left'])
      for (const move of ['off', 'on', 'off', 'on']) await change('recordAttempt', { lessonId, eye, move, worked: true, miss: null });
    for (const topic of careTopicsFor({ singleUse: false })) await change('recordTopic', { lessonId, topic });
    await finishLesson(world, visitId, lessonId, ['right', 'left']);
    version = await world.version(visitId);
    const record = await world.record(visitId);
    await change('correct', { kind: 'lessonAttempt', factId: record.attempts.at(-1)?.current?.id, reason: 'I helped', value: null });
    expect(await world.do('signOffLesson', { visitId, version, lessonId })).toMatchObject({ error: { rule: 'lessonLocked', data: { missing: 1 } } });
    await change('recordAttempt', { lessonId, eye: 'left', move: 'on', worked: true, miss: null });
    const topic = (await world.record(visitId)).topics.find((c) => c.current?.atEnd === false);
    await change('correct', { kind: 'lessonTopic', factId: topic?.current?.id, reason: 'not said back', value: null });
    expect(await world.do('signOffLesson', { visitId, version, lessonId })).toMatchObject({ error: { rule: 'lessonLocked', data: { missing: 1 } } });
    await change('recordTopic', { lessonId, topic: topic?.current?.topic });
    await change('signOffLesson', { lessonId, unbookedReason: 'books at the desk' });
    await change('handOver', { right: { lensOnEyeId: onEye.right, lot: 'P21', expiresOn: '2028-01-01' }, left: null });
    const box = (await world.record(visitId)).handOvers[0]?.current;
    await change('correct', { kind: 'handOver', factId: box?.id, reason: 'misread lot', value: { as: 'box', lot: 'P2181', expiresOn: '1 Feb 2028' } });
    const fixed = (await world.record(visitId)).handOvers[0];
    expect(fixed?.rows.map((r) => r.lot)).toEqual(['P21', 'P2181']);
    expect(fixed?.current).toMatchObject({ expiresOn: '2028-02-01', lensCount: 1, source: 'trial' });
  });
});
