import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { VISIT_PAGES, type VisitPage } from '../../src/core';
import { withAnswer } from '../../src/features/visit/shell/visitData';
import { COMMANDS, type CommandName } from '../../src/services';
import type { Context } from '../../src/services/define';
import { performWith } from '../../src/services/perform';
import { readChanged, type VisitPart } from '../../src/services/visit/slices';
import { openWorld, SENTENCES, spec, type World } from './support';
import { fillDrawer } from '../support/drawer';

/** Two people in one visit: those at different desks do not stand in each other's way, those at the same one are told. */
let world: World;
beforeAll(async () => {
  world = await openWorld();
}, 180_000);
afterAll(() => world.db.close());

const staining = { right: [{ sign: 'staining', value: 0.5 }], left: [] };
const dryness = { answers: [{ question: 'dryness', value: 'evening', note: null }] };
const right = (power: string) => ({ right: power, left: null, vertexMm: 12 });
const left = (power: string) => ({ right: null, left: power, vertexMm: 12 });

describe('two people who record in one visit', () => {
  it('different things: both are kept, though the second read an older version', async () => {
    const visitId = await world.visit(3);
    const version = await world.version(visitId);
    const { technician } = world.callers;
    await world.must('recordRefraction', { visitId, version, ...right('-3.00') }, technician);
    await world.must('recordHistory', { visitId, version, ...dryness });
    await world.must('recordFindings', { visitId, version, ...staining });
    await world.must('recordRefraction', { visitId, version, ...left('-4.00') });
    const record = await world.record(visitId);
    expect(record.visit.version).toBe(version + 4);
    expect(record.facts.refractions.filter((c) => c.current).map((c) => [c.current?.eye, c.current?.sphereD])).toEqual(
      expect.arrayContaining([
        ['right', -3],
        ['left', -4],
      ]),
    );
    expect(record.health.answers.some((a) => a.question === 'dryness')).toBe(true);
    expect(record.health.findings.some((c) => c.current?.sign === 'staining')).toBe(true);
  });
  it('the same thing of the same eye: the second is told who recorded what, and nothing is kept', async () => {
    const visitId = await world.visit(5);
    const version = await world.version(visitId);
    await world.must('recordRefraction', { visitId, version, ...right('-3.00') }, world.callers.technician);
    const late = await world.do('recordRefraction', { visitId, version, ...right('-2.50') });
    expect(late).toMatchObject({
      ok: false,
      error: { kind: 'conflict', what: 'visit', differs: [{ what: 'refraction', eye: 'right', by: world.callers.technician.name }] },
    });
    expect(await world.version(visitId)).toBe(version + 1);
    expect((await world.record(visitId)).facts.refractions.filter((c) => c.current?.sphereD === -2.5)).toEqual([]);
  });
  it('a lens chosen for powers that were changed meanwhile is not put on', async () => {
    const visitId = await world.visit(6);
    const version = await world.version(visitId);
    await world.must('recordRefraction', { visitId, version, ...right('-5.00 -1.75 x 20') }, world.callers.technician);
    const trial = await spec(world, 'plover-30-toric', -3, -1.75, 20);
    expect(await world.do('putOnTrials', { visitId, version, right: trial, left: null })).toMatchObject({ error: { kind: 'conflict' } });
    // The other eye's powers are the same as when its lens was chosen.
    expect(await world.do('putOnTrials', { visitId, version, right: null, left: trial })).toMatchObject({ ok: true });
  });
  it('signing, deciding, handing over and closing rest on the whole visit: whatever changed, they are told', async () => {
    const visitId = await world.visit(7);
    const version = await world.version(visitId);
    await world.must('recordHistory', { visitId, version, ...dryness }, world.callers.technician);
    const signing = {
      password: 'plain-sight',
      right: null,
      left: null,
      expiresOn: '2027-11-20',
      daysPerWeek: 6,
      waitNote: 'cannot come back before the voyage',
      overrides: SENTENCES,
    };
    const whole: readonly [CommandName, object][] = [
      ['sign', { ...signing, right: { mode: 'final', lens: await spec(world, 'plover-30-toric', -3, -1.75, 20), triedLensOnEyeId: null } }],
      ['decideKind', { modality: 'monthly', wear: 'day', reason: 'the first of all' }],
      [
        'handOver',
        { right: { lensOnEyeId: crypto.randomUUID(), lot: 'K1', expiresOn: '2028-01-01' }, left: null, experienceNote: 'has worn lenses for years' },
      ],
      ['closeVisit', {}],
    ];
    for (const [name, input] of whole) {
      expect(await world.do(name, { visitId, version, ...input }), name).toMatchObject({ error: { kind: 'conflict', differs: [{ what: 'history' }] } });
    }
  });
  it('nobody gets ahead of the visit: a version that is not there yet is refused', async () => {
    const visitId = await world.visit(8);
    const version = await world.version(visitId);
    expect(await world.do('recordHistory', { visitId, version: version + 3, ...dryness })).toMatchObject({ error: { kind: 'conflict' } });
  });
});

describe('whoever read an older version', () => {
  const read = async (visitId: string, page: VisitPage) => {
    const { part } = (await world.must('readVisit', { visitId, page })) as unknown as { readonly part: VisitPart };
    return part;
  };
  it('is answered with everything that the page shows, that of others too', async () => {
    const visitId = await world.visit(9);
    for (const page of VISIT_PAGES) {
      const before = await read(visitId, page);
      const { version } = before.head.visit;
      await world.must('recordRefraction', { visitId, version, ...right(`-${(version % 8) + 1}.00`) }, world.callers.technician);
      const extra = (context: Context) => readChanged(context, page);
      const done = await performWith(COMMANDS.recordHistory, world.deps, world.callers.prescriber, { visitId, version, ...dryness }, { extra });
      if (!done.ok || !done.value.extra) throw new Error(page);
      const after = { ...(await read(visitId, page)), page };
      expect(JSON.parse(JSON.stringify(withAnswer({ ...before, page }, done.value.extra))), page).toEqual(JSON.parse(JSON.stringify(after)));
    }
  });
});

describe('trial lenses from one drawer', () => {
  it('the last one goes to one of two who take it at the same moment; both eyes take two, or none', async () => {
    const trial = await spec(world, 'plover-30-toric', -3, -1.75, 20);
    const count = async () => {
      const [row] = await world.db.owner<{ n: number }[]>`select coalesce(sum(s.count), 0)::int as n from trial_stock s join lens l on l.id = s.lens_id
        join lens_family_version f on f.id = l.family_version_id where f.code = 'plover-30-toric' and l.sphere_d = -3 and l.cylinder_d = -1.75 and l.axis_deg = 20`;
      return row?.n ?? 0;
    };
    const leave = (n: number) => fillDrawer(world.db.owner, n, { code: 'plover-30-toric', power: [-3, -1.75, 20] });
    const [one, two] = [await world.visit(1), await world.visit(2)];
    await leave(1);
    const put = async (visitId: string, both: boolean) =>
      world.do('putOnTrials', { visitId, version: await world.version(visitId), right: trial, left: both ? trial : null });
    expect(await put(one, true)).toMatchObject({ error: { kind: 'invalid', fields: [{ path: ['left'], code: 'noTrialInDrawer' }] } });
    expect(await count()).toBe(1);
    const done = await Promise.all([put(one, false), put(two, false)]);
    expect(done.filter((d) => d.ok)).toHaveLength(1);
    expect(await count()).toBe(0);
    await leave(2);
    expect(await put(done[0]?.ok ? two : one, true)).toMatchObject({ ok: true });
    expect(await count()).toBe(0);
  });
});
