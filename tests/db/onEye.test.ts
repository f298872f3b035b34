import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { eyeState, LENS_SIGNS, sightOfBoth } from '../../src/core';
import { dispatchOne } from '../../src/jobs/dispatchOrders';
import { lensesOfRecord } from '../../src/features/visit/shell/lenses';
import { supplierServer } from '../../src/standins/supplier/server';
import type { AddressInfo } from 'node:net';
import { openWorld, SENTENCES, spec, type World } from './support';
import { fillDrawer } from '../support/drawer';

let world: World;
let visitId: string;
let version: number;
let onEye: string;

beforeAll(async () => {
  world = await openWorld();
});
afterAll(() => world.db.close());
beforeEach(async () => {
  await fillDrawer(world.db.owner, 30);
  visitId = await world.visit();
  version = 2;
  await change('putOnTrials', { right: await spec(world, 'plover-30-toric', -3, -1.75, 20), left: null });
  onEye = (await world.record(visitId)).facts.onEye[0]?.rootId ?? '';
  world.move(11 * 60);
});
async function change(name: Parameters<World['must']>[0], input: object): Promise<Record<string, string & number>> {
  const done = await world.must(name, { visitId, version, ...input });
  version = done.version ?? version + 1;
  return done;
}
const blinks = (...turns: number[]) => turns.map((rotationLeft) => ({ rotationLeft, how: 'drag' }));
const read = (reading: object) => change('recordOnEye', { right: { lensOnEyeId: onEye, vertexMm: 12, ...reading }, left: null });
const doRead = (reading: object) => world.do('recordOnEye', { visitId, version, right: { lensOnEyeId: onEye, vertexMm: 12, ...reading }, left: null });
const right = async () => {
  const r = await world.record(visitId);
  return eyeState(r.facts, 'right', lensesOfRecord(r), r.session.settings);
};

describe('series of blinks', () => {
  it('are kept one by one, in the order read, and go on where they were left off', async () => {
    await read({ blinks: blinks(10, 8) });
    await read({ blinks: blinks(11, 10, 11), continues: true });
    const state = await right();
    expect(state.series.map((c) => c.current.rotationLeftDeg)).toEqual([10, 8, 11, 10, 11]);
    expect(state.turn).toMatchObject({ mean: 10, count: 5 });
    expect(state.verdict.rotation).toMatchObject({ code: 'compensate' });
  });
  it('read anew begin another series; the first stays on record', async () => {
    await read({ blinks: blinks(30, 2, 15) });
    // Three that scatter ask for two more; five that do are refitted.
    expect((await right()).verdict).toMatchObject({ noOrder: 'fewBlinks', order: null, rotation: { why: 'scatters', wanted: 5 } });
    await read({ blinks: blinks(28, 3), continues: true });
    expect((await right()).verdict).toMatchObject({ noOrder: 'refit', order: null });
    await read({ blinks: blinks(0, 1, 0, -1, 0) });
    const state = await right();
    expect(state.turn?.count).toBe(5);
    expect(state.verdict.noOrder).toBeNull();
    expect((await world.record(visitId)).facts.rotations).toHaveLength(10);
  });
  it('read too early never mix with settled ones', async () => {
    await change('putOnTrials', { right: await spec(world, 'plover-30-toric', -3, -1.75, 20), left: null });
    onEye = (await world.record(visitId)).facts.onEye.at(-1)?.rootId ?? '';
    await read({ blinks: blinks(10, 10) });
    world.move(11 * 60);
    await read({ blinks: blinks(4, 4, 4), continues: true });
    const state = await right();
    expect(state.turn).toMatchObject({ mean: 4, count: 3 });
    expect(state.series.every((c) => !c.current.provisional)).toBe(true);
  });
  it('a number off a scale is kept with its instrument, and refused without', async () => {
    const { instrumentId } = await world.must('addInstrument', { name: 'Room 2', readStraight: 90, readTurned: 70 });
    expect((await world.record(visitId)).instruments).toMatchObject([{ name: 'Room 2', zero: 90, grows: 'right' }]);
    await read({ blinks: [{ rotationLeft: -10, how: 'scale', scaleReading: 100, instrumentId }] });
    const [row] = await world.db.owner`select scale_reading, instrument_id, how from rotation_reading where visit_id = ${visitId}`;
    expect(row).toEqual({ scaleReading: 100, instrumentId, how: 'scale' });
    await expect(world.db.owner`update rotation_reading set instrument_id = null where visit_id = ${visitId}`).rejects.toThrow(/check/);
    await world.must('endInstrument', { instrumentId });
    expect((await world.record(visitId)).instruments).toEqual([]);
    expect(await world.do('endInstrument', { instrumentId })).toMatchObject({ error: { kind: 'notFound' } });
  });
  it('a scale whose two readings do not lie 20° apart is not set up', async () => {
    expect(await world.do('addInstrument', { name: 'Room 3', readStraight: 90, readTurned: 95 })).toMatchObject({
      error: { fields: [{ path: ['readTurned'], code: 'scaleNotApart', data: { apart: 5 } }] },
    });
  });
  it('rotation 200 is refused, and nothing of the same press is kept', async () => {
    expect(await doRead({ fit: 'fits', blinks: blinks(200) })).toMatchObject({ error: { kind: 'invalid' } });
    expect((await world.record(visitId)).facts.fits).toEqual([]);
  });
  it('two people at once: the second is told what the first read', async () => {
    await read({ blinks: blinks(10, 10, 10) });
    const late = await world.do(
      'recordOnEye',
      { visitId, version: version - 1, right: { lensOnEyeId: onEye, vertexMm: 12, blinks: blinks(3) }, left: null },
      world.callers.technician,
    );
    expect(late).toMatchObject({ error: { kind: 'conflict' } });
    expect(JSON.stringify(late)).toContain('10° L');
  });
});

describe('what is seen of a lens', () => {
  it('the database takes every sign’s words and ends of range, and nothing beyond', async () => {
    // On a wearer of its own: sight at the end of its range would be the best ever recorded of this eye.
    visitId = await world.visit(6);
    version = 2;
    await change('putOnTrials', { right: await spec(world, 'plover-30-toric', -3, -1.75, 20), left: null });
    onEye = (await world.record(visitId)).facts.onEye[0]?.rootId ?? '';
    for (const s of LENS_SIGNS) {
      const values = s.kind === 'word' ? s.options : [s.min, s.max];
      for (const value of values) await read({ findings: [{ sign: s.id, value, typed: s.id.startsWith('acuity') ? 'typed' : null }] });
      const insert = (number: number | null, text: string | null) => world.db.owner`
        insert into lens_finding (id, root_id, practice_id, visit_id, visit_version, eye, observed_at, recorded_at, recorded_by, lens_on_eye_id, sign, number_value, word_value, typed_text, provisional)
        select x, x, practice_id, visit_id, visit_version, eye, observed_at, recorded_at, recorded_by, lens_on_eye_id, sign, ${number}::numeric, ${text}::text, 't', provisional
        from lens_finding, (select ${randomUUID()}::uuid as x) i where sign = ${s.id} limit 1`;
      if (s.kind === 'word') await expect(insert(null, 'something'), s.id).rejects.toThrow(/check/);
      else await expect(insert(s.max + 1, null), s.id).rejects.toThrow(/check|overflow/);
    }
  });
  it('is corrected by another row, with its reason', async () => {
    await read({ findings: [{ sign: 'movement', value: 0.9 }] });
    const id = (await right()).findingChains.movement?.current.id;
    expect(await world.do('correct', { visitId, version, kind: 'lensFinding', factId: id, reason: 'misread', value: { as: 'sign', value: 9 } })).toMatchObject({
      error: { fields: [{ code: 'findingOutOfRange' }] },
    });
    await change('correct', { kind: 'lensFinding', factId: id, reason: 'misread', value: { as: 'sign', value: 0.3 } });
    const state = await right();
    expect(state.findings.movement).toBe(0.3);
    expect(state.findingChains.movement?.rows).toHaveLength(2);
    expect(state.fitVerdict.verdict).toBe('fits');
  });
  it('an acuity is corrected with the words it was read in', async () => {
    await read({ findings: [{ sign: 'acuityLens', value: 0.1, typed: '20/25' }] });
    const id = (await right()).findingChains.acuityLens?.current.id;
    const correct = (value: object) => world.do('correct', { visitId, version, kind: 'lensFinding', factId: id, reason: 'misread', value });
    expect(await correct({ as: 'sign', value: 0.2 })).toMatchObject({ error: { fields: [{ code: 'acuityEmpty' }] } });
    expect((await correct({ as: 'sign', value: 0.2, typed: '20/32' })).ok).toBe(true);
    expect((await right()).findingChains.acuityLens?.current).toMatchObject({ numberValue: 0.2, typedText: '20/32' });
  });
  it('is provisional before the lens has settled, and so is the fit', async () => {
    await change('putOnTrials', { right: await spec(world, 'plover-30-toric', -3, -1.75, 20), left: null });
    onEye = (await world.record(visitId)).facts.onEye.at(-1)?.rootId ?? '';
    await read({ fit: 'loose', findings: [{ sign: 'pushUp', value: 20 }] });
    const state = await right();
    expect(state.fit?.current.provisional).toBe(true);
    expect(state.findingChains.pushUp?.current.provisional).toBe(true);
  });
  it('cannot hang on a lens that is off', async () => {
    await change('takeOff', { lensOnEyeIds: [onEye] });
    expect(await doRead({ findings: [{ sign: 'comfort', value: 5 }] })).toMatchObject({ error: { rule: 'lensTakenOff' } });
  });
});

describe('sight of both eyes', () => {
  const both = async () => {
    await change('putOnTrials', { right: null, left: await spec(world, 'plover-30-toric', -3, -1.75, 20) });
    world.move(11 * 60);
    const rows = (await world.record(visitId)).facts.onEye;
    return { rightLensOnEyeId: onEye, leftLensOnEyeId: rows.at(-1)?.rootId ?? '' };
  };
  const told = async () => {
    const r = await world.record(visitId);
    const state = (eye: 'right' | 'left') => eyeState(r.facts, eye, lensesOfRecord(r), r.session.settings).onEye?.rootId ?? null;
    return sightOfBoth(r.facts.acuitiesBoth, { right: state('right'), left: state('left') });
  };
  const acuity = { logMar: 0.1, typed: '20/25' };
  it('is kept with the two lenses it was read through, and gone with another lens', async () => {
    const ids = await both();
    await change('recordOnEye', { right: null, left: null, both: { ...ids, acuity } });
    expect((await told())?.current).toMatchObject({ acuityLogMar: 0.1, acuityTyped: '20/25', provisional: false, eye: null });
    await change('putOnTrials', { right: null, left: await spec(world, 'plover-30-toric', -3, -1.75, 20) });
    expect(await told()).toBeNull();
  });
  it('is corrected by another row with its reason, and undone', async () => {
    const ids = await both();
    await change('recordOnEye', { right: null, left: null, both: { ...ids, acuity } });
    const id = (await told())?.current.id;
    await change('correct', { kind: 'acuityBoth', factId: id, reason: 'misread', value: { as: 'acuity', logMar: 0, typed: '20/20' } });
    expect((await told())?.rows.map((r) => r.acuityTyped)).toEqual(['20/25', '20/20']);
    expect(await world.do('correct', { visitId, version, kind: 'acuityBoth', factId: id, reason: 'again', value: null })).toMatchObject({
      error: { kind: 'conflict' },
    });
    const last = (await told())?.current.id;
    await change('undo', { facts: [{ kind: 'acuityBoth', id: last }] });
    expect((await told())?.current.acuityTyped).toBe('20/25');
  });
  it('needs a lens on each eye: of this visit, of that eye, still on it', async () => {
    const ids = await both();
    const record = (b: object) => world.do('recordOnEye', { visitId, version, right: null, left: null, both: b });
    const exchanged = { rightLensOnEyeId: ids.leftLensOnEyeId, leftLensOnEyeId: ids.rightLensOnEyeId };
    expect(await record({ ...exchanged, acuity })).toMatchObject({ error: { kind: 'notFound' } });
    expect(await record({ ...ids, acuity: { logMar: 9, typed: '20/2' } })).toMatchObject({ error: { fields: [{ code: 'acuityOutOfRange' }] } });
    await change('takeOff', { lensOnEyeIds: [ids.leftLensOnEyeId] });
    expect(await record({ ...ids, acuity })).toMatchObject({ error: { rule: 'lensTakenOff' } });
    expect((await world.record(visitId)).facts.acuitiesBoth).toHaveLength(0);
  });
  it('is provisional while one of the two has not settled, and a second reader is told of it', async () => {
    await change('putOnTrials', { right: null, left: await spec(world, 'plover-30-toric', -3, -1.75, 20) });
    const left = (await world.record(visitId)).facts.onEye.at(-1)?.rootId ?? '';
    const before = version;
    await change('recordOnEye', { right: null, left: null, both: { rightLensOnEyeId: onEye, leftLensOnEyeId: left, acuity } });
    expect((await told())?.current.provisional).toBe(true);
    const again = { rightLensOnEyeId: onEye, leftLensOnEyeId: left, acuity: { logMar: 0, typed: '20/20' } };
    const late = await world.do('recordOnEye', { visitId, version: before, right: null, left: null, both: again });
    expect(late).toMatchObject({ error: { kind: 'conflict', differs: [{ what: 'acuityBoth', text: '20/25' }] } });
  });
});

describe('is this the lens?', () => {
  it('a surprise is asked first, and the answer stays on record', async () => {
    expect(await doRead({ overRefraction: '-1.25' })).toMatchObject({
      error: { fields: [{ path: ['right', 'overRefraction'], code: 'isThisTheLens_surprise' }] },
    });
    expect((await world.record(visitId)).facts.overRefractions).toEqual([]);
    await read({ overRefraction: '-1.25', sureOfLens: true });
    expect((await right()).findings.sureOfLens).toBe('yes');
  });
  it('an over-refraction of about the lens’s own power asks whether a lens is there', async () => {
    expect(await doRead({ overRefraction: '-3.00 -1.75 x 20' })).toMatchObject({ error: { fields: [{ code: 'isThisTheLens_noLens' }] } });
  });
  it('lenses exchanged are recognised', async () => {
    await change('putOnTrials', { right: await spec(world, 'turnstone-30', -2, 0, 180, 8.4), left: await spec(world, 'turnstone-30', -4, 0, 180, 8.4) });
    const all = (await world.record(visitId)).facts.onEye;
    const id = (eye: string): string => all.filter((c) => c.current?.eye === eye).at(-1)?.rootId ?? '';
    const over = (eye: string, overRefraction: string) => ({ lensOnEyeId: id(eye), overRefraction, vertexMm: 12 });
    expect(await world.do('recordOnEye', { visitId, version, right: over('right', '+2.00'), left: over('left', '-2.00') })).toMatchObject({
      error: { fields: [{ code: 'isThisTheLens_swapped' }] },
    });
  });
});

describe('an earlier lens taken up again', () => {
  it('counts with its own readings, with the reason; another lens on ends it', async () => {
    await read({ fit: 'fits', blinks: blinks(10, 10, 10) });
    const first = onEye;
    await change('putOnTrials', { right: await spec(world, 'plover-30-toric', -3, -1.75, 30), left: null });
    expect((await right()).turn).toBeNull();
    await change('chooseLens', { lensOnEyeId: first, why: 'it sat better' });
    expect(await right()).toMatchObject({ onEye: { rootId: first }, choice: { why: 'it sat better', chosenByName: 'Asha Penhallow' }, turn: { mean: 10 } });
    world.move(60);
    await change('putOnTrials', { right: await spec(world, 'plover-30-toric', -3, -1.75, 20), left: null });
    expect((await right()).choice).toBeNull();
  });
  it('must be of this visit', async () => {
    expect(await world.do('chooseLens', { visitId, version, lensOnEyeId: randomUUID(), why: 'it sat better' })).toMatchObject({ error: { kind: 'notFound' } });
  });
});

describe('the order', () => {
  const asks = (code: string) => ({ error: { kind: 'invalid', fields: [{ path: ['overrides', 'right', code], code: 'overrideReasonRequired' }] } });
  const signing = (eye: object, change: object = {}) => ({
    visitId,
    version,
    password: 'plain-sight',
    right: eye,
    left: null,
    expiresOn: '2027-11-24',
    waitNote: 'At sea from 2 December.',
    daysPerWeek: 7,
    overrides: SENTENCES,
    ...change,
  });
  const final = async () => ({ mode: 'final', lens: await spec(world, 'plover-30-toric', -3, -1.75, 30), triedLensOnEyeId: onEye });
  it('is refused while the lens does not sit still, and over 30°', async () => {
    await read({ blinks: blinks(0, 25, -10, 30, 5) });
    expect(await world.do('sign', signing(await final()))).toMatchObject(asks('refitFirst'));
    await read({ blinks: blinks(35, 36, 35, 34, 35) });
    expect(await world.do('sign', signing(await final()))).toMatchObject(asks('changeDesign'));
    await world.must('changeSetting', { key: 'turnOver30', value: 'compensate', lastChangeId: null }, world.callers.admin);
    expect((await right()).verdict.rotation?.code).toBe('compensate');
    const [row] = await world.db.owner<{ id: string }[]>`select id from practice_setting where key = 'turnOver30' order by set_at desc limit 1`;
    await world.must('changeSetting', { key: 'turnOver30', value: 'changeDesign', lastChangeId: row?.id ?? null }, world.callers.admin);
  });
  it('is refused on blinks read too early that are not at rest; read again once settled, it is not', async () => {
    await change('putOnTrials', { right: await spec(world, 'plover-30-toric', -3, -1.75, 20), left: null });
    onEye = (await world.record(visitId)).facts.onEye.at(-1)?.rootId ?? '';
    await read({ blinks: blinks(0, 25, -10, 30, 5) });
    expect(await world.do('sign', signing(await final()))).toMatchObject(asks('notSteadyYet'));
    world.move(11 * 60);
    await read({ blinks: blinks(10, 9, 11, 10, 10), continues: true });
    expect((await right()).turn).toMatchObject({ count: 5, mean: 10 });
    expect(await world.do('sign', signing(await final()))).toMatchObject({ ok: true });
  });
  it('is refused until the pinhole and the cause of lost sight are recorded', async () => {
    await change('recordRefraction', {
      right: '-3.25 -1.75 x 20',
      left: null,
      vertexMm: 12,
      rightAcuity: { logMar: 0, typed: '20/20' },
    });
    await read({ blinks: blinks(10, 10, 10), overRefraction: '+0.25 -0.50 x 70', overAcuity: { logMar: 0.2, typed: '20/32' } });
    expect(await world.do('sign', signing(await final()))).toMatchObject(asks('sightUnrestored'));
    await read({
      findings: [
        { sign: 'acuityPinhole', value: 0.18, typed: '20/30' },
        { sign: 'cause', value: 'swapped' },
      ],
    });
    expect(await world.do('sign', signing(await final()))).toMatchObject(asks('sightCauseFirst'));
    await read({ findings: [{ sign: 'cause', value: 'tears' }] });
    expect((await world.do('sign', signing(await final()))).ok).toBe(true);
  });
  it('every clinical refusal has a prescriber’s way: the sentence is kept with what it costs', async () => {
    await read({ fit: 'tight', blinks: blinks(0, 25, -10, 30, 5) });
    const reason = 'Seen again on Friday; glasses are broken.';
    const given = ['refitFirst', 'fitTight'].map((code) => ({ eye: 'right', code, reason }));
    expect(await world.do('sign', signing(await final(), { overrides: [...SENTENCES, given[1]] }))).toMatchObject(asks('refitFirst'));
    expect(await world.do('sign', signing(await final(), { overrides: [...SENTENCES, given[0]] }))).toMatchObject(asks('fitTight'));
    await world.must('sign', signing(await final(), { overrides: [...SENTENCES, ...given] }));
    const [signed] = (await world.record(visitId)).prescriptions;
    const kept = signed?.overrides ?? [];
    // Only what was asked is kept: the turn was read.
    expect(kept.map((o) => o.code).sort()).toEqual(['corneaUngraded', 'dangerUnasked', 'fitTight', 'refitFirst']);
    expect(kept.find((o) => o.code === 'refitFirst')).toMatchObject({ eye: 'right', area: 'order', reason });
    expect(kept.find((o) => o.code === 'refitFirst')?.cost).toBeGreaterThan(0.3);
  });
  it('a tight lens is never signed silently: by the word, or by its signs although the word says it fits', async () => {
    for (const reading of [
      { fit: 'tight' },
      { fit: 'fits', findings: [{ sign: 'pushUp', value: 80 }] },
      { fit: 'fits', findings: [{ sign: 'edge', value: 'indents' }] },
    ]) {
      await change('putOnTrials', { right: await spec(world, 'plover-30-toric', -3, -1.75, 20), left: null });
      onEye = (await world.record(visitId)).facts.onEye.at(-1)?.rootId ?? '';
      world.move(11 * 60);
      await read({ blinks: blinks(10, 10, 10), ...reading });
      for (const eye of [await final(), { mode: 'raw', triedLensOnEyeId: onEye, baseCurve: 8.6, diameter: 14.2 }])
        expect(await world.do('sign', signing(eye))).toMatchObject(asks('fitTight'));
    }
  });
  it('of two that do not agree a prescriber picks one; without a pick nothing is signed', async () => {
    await read({ fit: 'fits', blinks: blinks(10, 10, 10), overRefraction: '+1.00', sureOfLens: true });
    expect(await world.do('sign', signing(await final()))).toMatchObject({ error: { kind: 'ruleBroken', rule: 'measureAgain', data: { eye: 'right' } } });
    expect(await world.do('sign', signing(await final(), { rightPicked: 'refraction' }))).toMatchObject(asks('picked'));
    const picked = { eye: 'right', code: 'picked', reason: 'He squeezed through the over-refraction.' };
    await world.must('sign', signing(await final(), { rightPicked: 'refraction', overrides: [...SENTENCES, picked] }));
    const [signed] = (await world.record(visitId)).prescriptions;
    expect(signed?.eyes[0]?.working).toMatchObject({ basis: 'refraction', order: '−3.13 −1.59 × 30' });
  });
  it('a second over-refraction that says the same frees it towards plus, the more plus deciding', async () => {
    await read({ fit: 'fits', blinks: blinks(10, 10, 10), overRefraction: '+0.75', sureOfLens: true });
    expect((await right()).verdict.noOrder).toBe('routesDisagree');
    world.move(60);
    await read({ overRefraction: '+1.00', sureOfLens: true });
    expect((await right()).verdict).toMatchObject({ noOrder: null, freed: 'repeated' });
    expect((await right()).verdict.need?.sphere).toBeCloseTo(-3.08 + 1.01, 1);
  });
  it('a plano found through a lens 10° left orders × 30, and the record says that cylinder was not looked for', async () => {
    await read({ fit: 'fits', blinks: blinks(10, 10, 10), overRefraction: '0.00', plusHalf: 'worse' });
    const state = await right();
    expect(state.verdict.order?.axis).toBeCloseTo(30, 6);
    expect(state.overRefraction?.current).toMatchObject({ cylinderTested: false, plusHalf: 'worse', control: 'none' });
    await read({ overRefraction: '+0.25 -0.50 x 70' });
    expect((await right()).overRefraction?.current.cylinderTested).toBe(true);
  });
  it('over-minus at a later reading asks for its line', async () => {
    await read({ fit: 'fits', blinks: blinks(10, 10, 10), overRefraction: '-0.25' });
    const sentences = SENTENCES.filter((s) => s.code !== 'minusUnread');
    expect(await world.do('sign', signing(await final(), { overrides: sentences }))).toMatchObject(asks('minusUnread'));
    await read({
      findings: [{ sign: 'acuityLens', value: 0.1, typed: '20/25' }],
      overRefraction: '-0.25',
      overAcuity: { logMar: 0, typed: '20/20' },
    });
    expect((await world.do('sign', signing(await final(), { overrides: sentences }))).ok).toBe(true);
  });
  it('with the danger signs asked, the cornea stained and the fit judged, a good fit asks nothing', async () => {
    await change('recordHistory', { answers: [{ question: 'danger', value: ['none'], note: null }] });
    await change('recordFindings', { right: [{ sign: 'staining', value: 0 }], left: [] });
    await read({ fit: 'fits', blinks: blinks(10, 10, 10), overRefraction: '+0.25 -0.50 x 70' });
    const { number } = await world.must('sign', signing(await final(), { overrides: [] }));
    expect(number).toBeGreaterThan(0);
    expect((await world.record(visitId)).prescriptions[0]?.overrides).toEqual([]);
  });
  it('the best acuity of an earlier visit counts, and sight without any lens needs no power', async () => {
    await change('recordFindings', { right: [], left: [], rightSight: [{ way: 'pinhole', acuity: { logMar: 0, typed: '20/20' } }] });
    expect((await world.record(visitId)).facts.eyeAcuities[0]?.current).toMatchObject({ eye: 'right', way: 'pinhole', acuityLogMar: 0 });
    await change('closeVisit', {});
    const later = await world.visit(1, { right: '-3.25 -1.75 x 20', left: null });
    expect((await world.record(later)).bestBefore.right).toBe(0);
  });
  it('raw names the lens worn, the over-refraction and the turn, and no lens; the supplier gets just that', async () => {
    await read({ blinks: blinks(10, 10, 10), overRefraction: '+0.25 -0.50 x 70' });
    await world.must('sign', signing({ mode: 'raw', triedLensOnEyeId: onEye, baseCurve: 8.6, diameter: 14.2 }));
    const [signed] = (await world.record(visitId)).prescriptions;
    expect(signed?.eyes).toMatchObject([
      {
        mode: 'raw',
        lensId: null,
        raw: {
          familyCode: 'plover-30-toric',
          worn: { sphere: -3, cylinder: -1.75, axis: 20 },
          overRefraction: { sphere: 0.25, cylinder: -0.5, axis: 70 },
          rotationLeft: 10,
          baseCurveMm: 8.6,
        },
      },
    ]);
    version = await world.version(visitId);
    await world.must('placeOrder', { visitId, version, requestKey: randomUUID(), prescriptionId: signed?.id, rightPacks: 1, leftPacks: 0 });
    const server = supplierServer({ file: null, slowMs: 1, today: () => '2026-11-24' });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    await dispatchOne({ sql: world.db.app, clock: world.deps.clock, supplierUrl: url, timeoutMs: 4000 });
    const { orders } = (await (await fetch(`${url}/orders`)).json()) as { orders: { lines: Record<string, unknown>[] }[] };
    server.close();
    const line = orders.at(-1)?.lines[0];
    expect(line).toMatchObject({ mode: 'raw', raw: { rotationLeft: 10, worn: { axis: 20 } } });
    expect(line).not.toHaveProperty('axis');
    expect(line).not.toHaveProperty('sphere');
    // A laboratory is bound by no list: what stands on the box is kept as it stands there.
    const [{ id: orderId = '' } = { id: '' }] = (await world.record(visitId)).orders;
    const box = { packs: 1, lot: 'LAB1', expiresOn: '1 Mar 2029', power: '-3.00 -1.50 x 27' };
    await world.must('recordReceipt', { orderId, right: box, left: null }, world.callers.coordinator);
    const [came] = await world.db.owner`
      select l.sphere_d, l.cylinder_d, l.axis_deg, l.base_curve_mm, f.name, f.listed from order_receipt r join lens l on l.id = r.lens_id
      join lens_family_version f on f.id = l.family_version_id where r.lot = 'LAB1'`;
    expect(came).toEqual({ sphereD: -3, cylinderD: -1.5, axisDeg: 27, baseCurveMm: 8.6, name: 'Plover 30 Toric', listed: false });
  });
  it('raw needs all three: without a turn, an over-refraction or the lens tried it is refused', async () => {
    const raw = { mode: 'raw', triedLensOnEyeId: onEye, baseCurve: 8.6, diameter: 14.2 };
    expect(await world.do('sign', signing(raw))).toMatchObject({ error: { rule: 'rawIncomplete' } });
    await read({ overRefraction: '+0.25 -0.50 x 70', sureOfLens: true });
    expect(await world.do('sign', signing(raw))).toMatchObject({ error: { rule: 'rawIncomplete' } });
    await read({ blinks: blinks(10, 10, 10) });
    expect(await world.do('sign', signing({ ...raw, baseCurve: 8.3 }))).toMatchObject({ error: { fields: [{ code: 'lensNotMade' }] } });
  });
  it('the database never holds both, nor neither', async () => {
    await read({ blinks: blinks(10, 10, 10), overRefraction: '+0.25 -0.50 x 70' });
    await world.must('sign', signing(await final()));
    const [signed] = (await world.record(visitId)).prescriptions;
    const update = (set: string) => world.db.owner.unsafe(`update prescription_eye set ${set} where prescription_id = '${signed?.id ?? ''}'`);
    await expect(update(`raw = '{}'`)).rejects.toThrow(/check/);
    await expect(update(`mode = 'raw'`)).rejects.toThrow(/check/);
    await expect(update(`mode = 'raw', raw = '{}'`)).rejects.toThrow(/check/);
    await expect(update(`lens_id = null`)).rejects.toThrow(/check/);
  });
  it('a stabilised sphere is a lens of its own: tried, read and ordered as a toric', async () => {
    const made = await spec(world, 'godwit-made-toric', -1.5, 0, 180, 8.6, 14.4);
    const version0 = await world.version(visitId);
    version = version0;
    await world.db.owner`
      with l as (insert into lens (id, practice_id, family_version_id, sphere_d, cylinder_d, axis_deg, base_curve_mm, diameter_mm)
        values (${randomUUID()}, ${world.practiceId}, ${made.familyId}, -1.5, 0, 180, 8.6, 14.4) on conflict do nothing returning id)
      insert into trial_stock (id, practice_id, lens_id, lot, expires_on) select ${randomUUID()}, ${world.practiceId}, id, 'Z1', '2028-01-01' from l`;
    await fillDrawer(world.db.owner, 30);
    await world.must('changeSetting', { key: 'oxygenByDay', value: 'warn', lastChangeId: null }, world.callers.admin).catch(() => undefined);
    await change('putOnTrials', { right: made, left: null });
    onEye = (await world.record(visitId)).facts.onEye.at(-1)?.rootId ?? '';
    world.move(16 * 60);
    // Source: thin lenses, computed at 12 mm: need −1.25/−1.24 × 112, order × 120.
    await change('recordRefraction', { right: '-1.25 -1.25 x 112', left: null, vertexMm: 12 });
    await read({ blinks: blinks(8, 8, 8), overRefraction: '+0.25 -1.25 x 112' });
    const state = await right();
    expect(state.verdict.rotation?.compensated?.lens.power).toEqual({ sphere: -1.25, cylinder: -1.25, axis: 120 });
  });
});

describe('settle clocks', () => {
  it('run for every open visit of the practice, and stop when the lens is off', async () => {
    await change('putOnTrials', { right: await spec(world, 'plover-30-toric', -3, -1.75, 20), left: await spec(world, 'plover-30-toric', -4.25, -1.25, 170) });
    const mine = async () => {
      const { clocks } = (await world.must('readSettling', {})) as unknown as {
        clocks: { visitId: string; eye: string; settleMinutes: number; lensOnEyeId: string }[];
      };
      return clocks.filter((c) => c.visitId === visitId);
    };
    expect((await mine()).map((c) => [c.eye, c.settleMinutes])).toEqual([
      ['right', 10],
      ['left', 10],
    ]);
    await change('takeOff', { lensOnEyeIds: [(await mine())[0]?.lensOnEyeId] });
    expect((await mine()).map((c) => c.eye)).toEqual(['left']);
    world.move(25 * 60);
    expect(await mine()).toEqual([]);
  });
});
