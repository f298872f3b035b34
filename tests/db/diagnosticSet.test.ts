import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readinessOf } from '../../src/core';
import type { SetsPage } from '../../src/services/diagnosticSet/queries';
import type { DiagnosticLensEvent } from '../../src/db/diagnosticLens';
import { newWearer, openNeighbour, openWorld, SENTENCES, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

const at = async (visitId: string) => ({ visitId, version: await world.version(visitId) });
const sets = async (): Promise<SetsPage> => {
  const page = await world.do('readSets', {});
  if (!page.ok) throw new Error('sets');
  return page.value as unknown as SetsPage;
};
const lensOf = async (set: string, number: string) => {
  const { lenses } = await sets();
  const lens = lenses.find((l) => l.setCode === set && l.number === number);
  if (!lens) throw new Error(`${set} ${number}`);
  return lens;
};
const stateOf = async (set: string, number: string) => {
  const { lenses, now } = await sets();
  const lens = lenses.find((l) => l.setCode === set && l.number === number);
  return lens ? readinessOf(lens, now).state : null;
};
const visitOf = async () => world.visit(await newWearer(world), { right: '-3.00', left: '-3.00' });
const putOn = async (visitId: string, right: string | null, left: string | null = null) =>
  world.do('putOnSetLenses', { ...(await at(visitId)), right, left, despiteReason: 'no other lens fits this cornea' });
const onEye = async (visitId: string) => (await world.record(visitId)).facts.onEye.map((c) => c.rootId);
const takeOff = async (visitId: string) => world.must('takeOff', { ...(await at(visitId)), lensOnEyeIds: await onEye(visitId) });
const disinfect = (...diagnosticLensIds: string[]) => world.do('disinfectLenses', { diagnosticLensIds }, world.callers.technician);
const MINUTE = 60;

describe('a lens of a diagnostic set', () => {
  it('goes on, is blocked for everybody until it was disinfected by its set’s instructions, and keeps its story', async () => {
    const four = await lensOf('heron-cone', '4');
    const first = await visitOf();
    expect(await stateOf('heron-cone', '4')).toBe('new');
    expect(await putOn(first, four.id)).toMatchObject({ ok: true });
    expect(await stateOf('heron-cone', '4')).toBe('onEye');
    const second = await visitOf();
    const refused = async (visitId: string, code: string) =>
      expect(await putOn(visitId, null, four.id)).toMatchObject({ error: { fields: [{ path: ['left'], code, data: { number: '4', set: 'Heron Cone' } }] } });
    await refused(second, 'setLens_onEye');
    expect(await disinfect(four.id)).toMatchObject({ error: { rule: 'setLensOnEye' } });
    await takeOff(first);
    await refused(second, 'setLens_used');
    // The wearer it was on gets it no sooner.
    await refused(first, 'setLens_used');
    world.move(MINUTE);
    expect(await disinfect(four.id)).toMatchObject({ ok: true });
    world.move(359 * MINUTE);
    await refused(second, 'setLens_soaking');
    world.move(MINUTE);
    expect(await stateOf('heron-cone', '4')).toBe('ready');
    expect(await putOn(second, null, four.id)).toMatchObject({ ok: true });
    const story = await world.do('readSetLens', { diagnosticLensId: four.id });
    const { events } = (story.ok ? story.value : { events: [] }) as unknown as { events: readonly DiagnosticLensEvent[] };
    expect(events.map((e) => e.what)).toEqual(['on', 'disinfected', 'on', 'added']);
    expect(events.filter((e) => e.what === 'on').map((e) => e.wearerId)).toEqual([
      (await world.record(second)).wearer.id,
      (await world.record(first)).wearer.id,
    ]);
    expect(events.find((e) => e.what === 'disinfected')).toMatchObject({ detail: 'peroxide, neutralised', name: 'Joss Merriday' });
  });
  it('one that was never taken off is free for disinfection once its visit is closed', async () => {
    const five = await lensOf('heron-cone', '5');
    const visitId = await visitOf();
    expect(await putOn(visitId, five.id)).toMatchObject({ ok: true });
    await world.must('closeVisit', await at(visitId));
    expect(await stateOf('heron-cone', '5')).toBe('used');
    world.move(MINUTE);
    expect(await disinfect(five.id)).toMatchObject({ ok: true });
  });
  it('one lens does not go on two eyes, nor one of another set under its number; one that left its set goes on none', async () => {
    const one = await lensOf('heron-cone', '1');
    const visitId = await visitOf();
    expect(await putOn(visitId, one.id, one.id)).toMatchObject({ error: { fields: [{ path: ['left'], code: 'oneLensOneEye' }] } });
    const other = await lensOf('bittern-oblate', '1');
    expect([other.id, other.baseCurveMm]).not.toEqual([one.id, one.baseCurveMm]);
    await world.must('endSetLens', { diagnosticLensId: one.id, why: 'damaged' });
    expect(await putOn(visitId, one.id)).toMatchObject({ error: { fields: [{ code: 'setLens_ended' }] } });
    expect(await world.do('endSetLens', { diagnosticLensId: one.id, why: 'lost' })).toMatchObject({ error: { rule: 'setLensEnded' } });
  });
  it('stays here: it is not handed over, and goes on by no other way', async () => {
    const six = await lensOf('heron-cone', '6');
    const visitId = await visitOf();
    expect(await putOn(visitId, six.id)).toMatchObject({ ok: true });
    const [lensOnEyeId] = await onEye(visitId);
    const box = { lensOnEyeId, lot: 'X', expiresOn: '1 Mar 2030', lensCount: 1 };
    expect(await world.do('handOver', { ...(await at(visitId)), right: box, left: null, experienceNote: 'worn for years' })).toMatchObject({
      error: { fields: [{ code: 'setLensStays' }] },
    });
    const spec = { familyId: six.familyVersionId, sphere: 0, cylinder: 0, axis: 180, add: null, baseCurve: 8.6, diameter: 14.5 };
    const inHand = { lot: 'H-1', expiresOn: '1 Mar 2030' };
    expect(await world.do('putOnTrials', { ...(await at(visitId)), right: null, left: { ...spec, inHand }, despiteReason: 'no other fits' })).toMatchObject({
      error: { fields: [{ path: ['left'], code: 'fromItsSet' }] },
    });
    // A removal is not taken back once the lens lies in its solution.
    await takeOff(visitId);
    world.move(MINUTE);
    expect(await disinfect(six.id)).toMatchObject({ ok: true });
    expect(await world.do('putBack', { ...(await at(visitId)), lensOnEyeId, reason: 'still on' })).toMatchObject({ error: { rule: 'setLensMovedOn' } });
  });
  it('little oxygen where it is thickest asks no sentence where the practice offers such lenses with the figure', async () => {
    const seven = await lensOf('heron-cone', '7');
    const visitId = await visitOf();
    expect(await world.do('putOnSetLenses', { ...(await at(visitId)), right: seven.id, left: null, despiteReason: '' })).toMatchObject({ ok: true });
  });
});

describe('the last fence stands in the database', () => {
  it('no row of a lens that waits to be disinfected goes in, whatever asks for it', async () => {
    const two = await lensOf('heron-cone', '2');
    const visitId = await visitOf();
    expect(await putOn(visitId, two.id)).toMatchObject({ ok: true });
    const [root] = await onEye(visitId);
    await expect(
      world.db.owner`
        insert into lens_on_eye (id, root_id, practice_id, visit_id, eye, observed_at, recorded_at, recorded_by, lens_id, source, trial_number, diagnostic_lens_id, put_on_at)
        select n.id, n.id, e.practice_id, e.visit_id, 'left', e.observed_at, e.recorded_at, e.recorded_by, e.lens_id, 'trial', 1, e.diagnostic_lens_id, e.put_on_at
        from lens_on_eye e, (select gen_random_uuid() as id) n where e.id = ${root ?? ''}`,
    ).rejects.toThrow('waits to be disinfected');
  });
  it('two who ask for one lens at once: one has it', async () => {
    const three = await lensOf('heron-cone', '3');
    const [a, b] = [await visitOf(), await visitOf()];
    const both = await Promise.all([putOn(a, three.id), putOn(b, three.id)]);
    expect(both.filter((r) => r.ok)).toHaveLength(1);
  });
});

describe('lenses of a set', () => {
  it('come with their numbers, each once in its set; only of a family that says how it is disinfected', async () => {
    const { lenses } = await sets();
    const familyId = lenses.find((l) => l.setCode === 'bittern-oblate')?.familyVersionId;
    const lens = { sphere: 0, cylinder: 0, axis: 180, add: null, baseCurve: 9.6, diameter: 14.2 };
    const add = (number: string, of = familyId, spec: object = lens, expiresOn = '1 Mar 2030') =>
      world.do('addSetLenses', { familyId: of, lenses: [{ number, lens: spec, expiresOn }] }, world.callers.coordinator);
    expect(await add('12')).toMatchObject({ ok: true });
    expect(await add('12')).toMatchObject({ error: { fields: [{ path: ['lenses', '0', 'number'], code: 'setNumberTaken' }] } });
    expect(await add('13', familyId, { ...lens, baseCurve: 7 })).toMatchObject({ error: { kind: 'invalid' } });
    expect(await add('14', familyId, lens, '1 Mar 2020')).toMatchObject({ error: { fields: [{ code: 'setLensExpired' }] } });
    const plover = (await world.record(await visitOf())).families.find((f) => f.code === 'plover-30-toric');
    const regular = { sphere: -3, cylinder: -1.75, axis: 20, add: null, baseCurve: 8.6, diameter: 14.2 };
    expect(await add('1', plover?.id, regular)).toMatchObject({ error: { rule: 'notASet' } });
  });
  it('another practice sees none of them and moves none', async () => {
    const { caller } = await openNeighbour(world);
    const page = await world.do('readSets', {}, caller);
    const ours = (await sets()).lenses.map((l) => l.id);
    expect(page.ok && (page.value as unknown as SetsPage).lenses.filter((l) => ours.includes(l.id))).toEqual([]);
    const four = await lensOf('heron-cone', '4');
    expect(await world.do('disinfectLenses', { diagnosticLensIds: [four.id] }, caller)).toMatchObject({ error: { kind: 'notFound' } });
    expect(await world.do('readSetLens', { diagnosticLensId: four.id }, caller)).toMatchObject({ error: { kind: 'notFound' } });
  });
});

describe('the order after a lens of a set', () => {
  let number = 100;
  const fitted = async () => {
    const { lenses } = await sets();
    const familyId = lenses.find((l) => l.setCode === 'heron-cone')?.familyVersionId;
    number += 1;
    const power = { sphere: -1.5, cylinder: 0, axis: 180, add: null, baseCurve: 8.2, diameter: 14.5 };
    await world.must('addSetLenses', { familyId, lenses: [{ number: String(number), lens: power, expiresOn: '1 Mar 2030' }] });
    const lens = await lensOf('heron-cone', String(number));
    const visitId = await visitOf();
    expect(await putOn(visitId, lens.id)).toMatchObject({ ok: true });
    const [lensOnEyeId = ''] = await onEye(visitId);
    world.move(31 * MINUTE);
    const blinks = [8, 8, 8].map((rotationLeft) => ({ rotationLeft }));
    const right = { lensOnEyeId, fit: 'fits', blinks, overRefraction: '+0.25 -1.25 x 112', vertexMm: 12, findings: [{ sign: 'markUpGaze', value: 'wanders' }] };
    await world.must('recordOnEye', { ...(await at(visitId)), right, left: null });
    return { visitId, lens, lensOnEyeId };
  };
  const sign = async (visitId: string, right: object, overrides: readonly object[] = SENTENCES) =>
    world.do('sign', {
      ...(await at(visitId)),
      ...{
        password: 'plain-sight',
        right,
        left: null,
        expiresOn: '2027-11-20',
        waitNote: 'has worn such lenses for years',
        daysPerWeek: 7,
        overrides,
      },
    });
  it('is in finer curves than the set has: final figures, the turn in them already', async () => {
    const { visitId, lens, lensOnEyeId } = await fitted();
    const spec = {
      familyId: lens.familyVersionId,
      sphere: lens.sphereD,
      cylinder: -1.25,
      axis: 120,
      add: null,
      baseCurve: (lens.baseCurveMm ?? 0) - 0.1,
      diameter: 14.5,
    };
    const signed = await sign(visitId, { mode: 'final', lens: { ...spec, baseCurve: Math.round(spec.baseCurve * 10) / 10 }, triedLensOnEyeId: lensOnEyeId });
    expect(signed).toMatchObject({ ok: true });
    const [prescription] = (await world.record(visitId)).prescriptions;
    expect(prescription?.eyes[0]?.baseCurveOrderedMm).toBeCloseTo((lens.baseCurveMm ?? 0) - 0.1, 6);
  });
  it('with a cylinder before the sphere alone was read is signed with a sentence only; it is kept with what it costs', async () => {
    const { visitId, lens, lensOnEyeId } = await fitted();
    const spec = { familyId: lens.familyVersionId, sphere: lens.sphereD, cylinder: -1.25, axis: 120, add: null, baseCurve: 8.2, diameter: 14.5 };
    const final = { mode: 'final', lens: spec, triedLensOnEyeId: lensOnEyeId };
    const without = SENTENCES.filter((s) => s.code !== 'cylinderSphereFirst');
    expect(await sign(visitId, final, without)).toMatchObject({
      error: { fields: [{ path: ['overrides', 'right', 'cylinderSphereFirst'], code: 'overrideReasonRequired' }] },
    });
    expect(await sign(visitId, final)).toMatchObject({ ok: true });
    const [prescription] = (await world.record(visitId)).prescriptions;
    expect(prescription?.overrides.map((o) => o.code)).toContain('cylinderSphereFirst');
    // A lens without a cylinder asks nothing of the kind.
    const other = await fitted();
    const sphere = { ...final, lens: { ...spec, cylinder: 0, axis: 180 }, triedLensOnEyeId: other.lensOnEyeId };
    expect(await sign(other.visitId, sphere, without)).toMatchObject({ ok: true });
  });
  it('or raw: set, lens worn, over-refraction, turn and the curve to order; the turn is not in them, and no lens is named', async () => {
    const { visitId, lens, lensOnEyeId } = await fitted();
    const baseCurve = Math.round(((lens.baseCurveMm ?? 0) - 0.1) * 10) / 10;
    expect(await sign(visitId, { mode: 'raw', triedLensOnEyeId: lensOnEyeId, baseCurve, diameter: 14.5 })).toMatchObject({ ok: true });
    const [prescription] = (await world.record(visitId)).prescriptions;
    expect(prescription?.eyes[0]).toMatchObject({ lensId: null, raw: { familyName: 'Heron Cone', baseCurveMm: baseCurve } });
  });
  it('a cylinder found by answers is worked out here again and kept with all that was said', async () => {
    const { visitId, lensOnEyeId } = await fitted();
    const found = async (over: object) =>
      world.do('recordGuidedCylinder', {
        ...(await at(visitId)),
        ...{ eye: 'right', lensOnEyeId, startAxis: 8, blur: [50, 150], step: 1, answers: ['better', 'same'], ...over },
      });
    expect(await found({})).toMatchObject({ ok: true });
    expect((await world.record(visitId)).facts.guided).toMatchObject([
      {
        axis: 10,
        cylinder: -1,
        blur: [50, 150],
        tries: [
          { cylinder: -1, answer: 'better' },
          { cylinder: -2, answer: 'same' },
        ],
        foundByName: 'Asha Penhallow',
      },
    ]);
    for (const [over, code] of [
      [{ blur: [30, 120], startAxis: null }, 'bracket_startNeeded'],
      [{ answers: ['better'] }, 'answersOpen'],
      [{ answers: ['same', 'better'] }, 'answersPastEnd'],
      [{ blur: [200, 10] }, 'axisOutside'],
    ] as const)
      expect(await found(over)).toMatchObject({ error: { fields: [{ code }] } });
    expect(await found({ eye: 'left' })).toMatchObject({ error: { kind: 'notFound' } });
  });
});
