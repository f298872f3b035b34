import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { LIMITS, onStep, withinLimit, type LimitName } from '../../src/core';
import { limited } from '../../src/schema/fields';
import { openWorld, spec, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
});
afterAll(() => world.db.close());

const refraction = (visitId: string, version: number, right: string | null, left: string | null = null) => ({ visitId, version, right, left, vertexMm: 12 });

describe('facts are appended', () => {
  it('the application’s login may neither change nor remove one', async () => {
    const visitId = await world.visit();
    for (const table of [
      'refraction',
      'lens_on_eye',
      'rotation_reading',
      'over_refraction',
      'fit_check',
      'lesson_attempt',
      'hand_over',
      'prescription',
      'prescription_eye',
      'order_event',
      'audit_log',
      'lens_confirmation',
      'practice_setting',
    ]) {
      await expect(world.db.app.unsafe(`delete from ${table}`), table).rejects.toThrow(/permission denied/);
      await expect(world.db.app.unsafe(`update ${table} set practice_id = practice_id`), table).rejects.toThrow(/permission denied/);
    }
    expect((await world.record(visitId)).facts.refractions).toHaveLength(2);
  });
  it('a correction keeps the old value with its reason; a second correction of the same row conflicts', async () => {
    const visitId = await world.visit();
    const factId = (await world.record(visitId)).facts.refractions.find((c) => c.current?.eye === 'right')?.current?.id;
    const change = {
      visitId,
      version: 2,
      kind: 'refraction',
      factId,
      reason: 'read the wrong line',
      value: { as: 'power', text: '-3.50 -1.75 x 20', vertexMm: 12 },
    };
    await world.must('correct', change);
    const chain = (await world.record(visitId)).facts.refractions.find((c) => c.rows.length === 2);
    expect(chain?.rows.map((r) => r.sphereD)).toEqual([-3.25, -3.5]);
    expect(chain?.current).toMatchObject({ reason: 'read the wrong line', recordedByName: 'Asha Penhallow' });
    expect(await world.do('correct', { ...change, version: 3 })).toMatchObject({ ok: false, error: { kind: 'conflict' } });
    expect(await world.do('correct', { ...change, version: 3, reason: '' })).toMatchObject({
      ok: false,
      error: { kind: 'invalid', fields: [{ path: ['reason'] }] },
    });
  });
  it('R and L mixed up is one correction', async () => {
    const visitId = await world.visit();
    await world.must('swapEyes', { visitId, version: 2, kind: 'refraction', reason: 'charts swapped' });
    const facts = (await world.record(visitId)).facts.refractions;
    expect(facts.map((c) => [c.current?.eye, c.current?.sphereD])).toEqual(
      expect.arrayContaining([
        ['right', -4.5],
        ['left', -3.25],
      ]),
    );
    expect(await world.version(visitId)).toBe(3);
  });
  it('undo takes back within seconds, with the lens back in the drawer; later it asks for a reason', async () => {
    const visitId = await world.visit();
    const lens = await spec(world, 'plover-30-toric', -3, -1.75, 20);
    const inDrawer = async (): Promise<number> => {
      const [row] = await world.db.owner<
        { n: number }[]
      >`select sum(s.count)::int as n from trial_stock s join lens l on l.id = s.lens_id where l.family_version_id = ${lens.familyId} and l.sphere_d = -3 and l.cylinder_d = -1.75 and l.axis_deg = 20`;
      return row?.n ?? 0;
    };
    const before = await inDrawer();
    const done = (await world.must('putOnTrials', { visitId, version: 2, right: lens, left: null })) as unknown as { facts: unknown[]; version: number };
    expect(await inDrawer()).toBe(before - 1);
    expect(await world.do('undo', { visitId, version: done.version, facts: done.facts }, world.callers.technician)).toMatchObject({
      error: { rule: 'tooLateToUndo' },
    });
    await world.must('undo', { visitId, version: done.version, facts: done.facts });
    expect(await inDrawer()).toBe(before);
    const again = (await world.must('putOnTrials', { visitId, version: done.version + 1, right: lens, left: null })) as unknown as {
      facts: unknown[];
      version: number;
    };
    world.move(60);
    expect(await world.do('undo', { visitId, version: again.version, facts: again.facts })).toMatchObject({ error: { rule: 'tooLateToUndo' } });
  });
  it('undoing a correction restores what it replaced', async () => {
    const visitId = await world.visit();
    const factId = (await world.record(visitId)).facts.refractions[0]?.current?.id;
    const done = (await world.must('correct', {
      visitId,
      version: 2,
      kind: 'refraction',
      factId,
      reason: 'slip',
      value: { as: 'power', text: '-9.00', vertexMm: 14 },
    })) as unknown as { facts: unknown[] };
    await world.must('undo', { visitId, version: 3, facts: done.facts });
    const chain = (await world.record(visitId)).facts.refractions[0];
    expect(chain?.rows).toHaveLength(3);
    expect(chain?.current).toMatchObject({ sphereD: chain?.rows[0]?.sphereD, vertexMm: 12 });
  });
});

describe('two people at once', () => {
  it('the second is refused, told what differs, and nothing of either is lost', async () => {
    const visitId = await world.visit();
    await world.must('recordRefraction', refraction(visitId, 2, '-3.50 -1.75 x 25'), world.callers.technician);
    const second = await world.do('recordRefraction', refraction(visitId, 2, '-2.00'));
    expect(second).toMatchObject({
      ok: false,
      error: { kind: 'conflict', differs: [{ what: 'refraction', eye: 'right', text: '−3.50 −1.75 × 25', by: 'Joss Merriday' }] },
    });
    expect((await world.record(visitId)).facts.refractions).toHaveLength(3);
  });
  it('truly at once: one wins', async () => {
    const visitId = await world.visit();
    const both = await Promise.all([
      world.do('recordRefraction', refraction(visitId, 2, '-1.00')),
      world.do('recordRefraction', refraction(visitId, 2, '-2.00'), world.callers.technician),
    ]);
    expect(both.filter((r) => r.ok)).toHaveLength(1);
  });
  it('the last lens in the drawer goes on one eye only', async () => {
    const lens = await spec(world, 'curlew-multifocal', -1, 0, 180, 8.6, 14.1);
    // Three lie in the drawer, and four want one.
    const visits = await Promise.all([3, 4, 5, 6].map((n) => world.visit(n)));
    const all = await Promise.all(visits.map((visitId) => world.do('putOnTrials', { visitId, version: 2, right: { ...lens, add: 'low' }, left: null })));
    expect(all.filter((r) => r.ok)).toHaveLength(3);
    expect(all.find((r) => !r.ok)).toMatchObject({ error: { fields: [{ code: 'noTrialInDrawer' }] } });
  });
  it('a wearer’s record likewise', async () => {
    const wearerId = await world.wearerId(5);
    await world.must('updateWearer', { wearerId, version: 1, name: 'Iola Fenmore', birthDate: '1985-07-07', telephone: '555 0000' }, world.callers.coordinator);
    expect(await world.do('updateWearer', { wearerId, version: 1, name: 'Iola F.', birthDate: '1985-07-07' })).toMatchObject({
      ok: false,
      error: { kind: 'conflict' },
    });
  });
});

describe('an over-refraction belongs to a lens somebody knows', () => {
  it('an unknown lens can be put on record, but nothing read through it; the database refuses it too', async () => {
    const visitId = await world.visit();
    expect(await world.do('recordBroughtIn', { visitId, version: 2, eye: 'right', description: 'blue box', power: null, how: 'wearerSaid' })).toMatchObject({
      ok: false,
      error: { fields: [{ code: 'powerNeededToConfirm' }] },
    });
    await world.must('recordBroughtIn', { visitId, version: 2, eye: 'right', description: 'blue box', power: null, how: null });
    const onEye = (await world.record(visitId)).facts.onEye[0];
    expect(onEye?.current?.lensId).toBeNull();
    const reading = { lensOnEyeId: onEye?.rootId, fit: null, overRefraction: '+0.25', vertexMm: 12 };
    expect(await world.do('recordOnEye', { visitId, version: 3, right: reading, left: null })).toMatchObject({
      ok: false,
      error: { fields: [{ path: ['right', 'overRefraction'], code: 'lensUnconfirmed' }] },
    });
    const id = randomUUID();
    await expect(
      world.db.app`insert into over_refraction (id, root_id, practice_id, visit_id, visit_version, eye, observed_at, recorded_at, recorded_by, lens_on_eye_id,
        sphere_d, cylinder_d, axis_deg, vertex_mm, typed_text, provisional)
        values (${id}, ${id}, ${world.practiceId}, ${visitId}, 9, 'right', now(), now(), ${world.asha.personId}, ${onEye?.rootId ?? ''}, 0, 0, 180, 12, '', false)`,
    ).rejects.toThrow(/foreign key/);
    await expect(
      world.db.app`insert into lens_confirmation (lens_on_eye_id, practice_id, how, confirmed_at, confirmed_by)
        values (${onEye?.rootId ?? ''}, ${world.practiceId}, 'boxSeen', now(), ${world.asha.personId})`,
    ).rejects.toThrow(/foreign key/);
  });
  it('a lens brought in with a known power is read like a trial', async () => {
    const visitId = await world.visit();
    await world.must('recordBroughtIn', { visitId, version: 2, eye: 'right', description: 'Heron 30', power: '-2.75 -1.25 x 165', how: 'boxSeen' });
    const onEye = (await world.record(visitId)).facts.onEye[0]?.rootId;
    await world.must('recordOnEye', {
      visitId,
      version: 3,
      right: { lensOnEyeId: onEye, fit: 'fits', blinks: [{ rotationLeft: 12 }], overRefraction: '+0.50 -0.75 x 60', vertexMm: 12, sureOfLens: true },
      left: null,
    });
    expect((await world.record(visitId)).facts.overRefractions).toHaveLength(1);
  });
  it('readings taken before the lens settled are marked provisional', async () => {
    const visitId = await world.visit();
    await world.must('putOnTrials', { visitId, version: 2, right: await spec(world, 'plover-30-toric', -3, -1.75, 30), left: null });
    const onEye = (await world.record(visitId)).facts.onEye[0]?.rootId;
    const reading = { lensOnEyeId: onEye, fit: null, blinks: [{ rotationLeft: 8 }], overRefraction: null, vertexMm: 12 };
    await world.must('recordOnEye', { visitId, version: 3, right: reading, left: null });
    world.move(10 * 60);
    await world.must('recordOnEye', { visitId, version: 4, right: { ...reading, blinks: [{ rotationLeft: 10 }] }, left: null });
    expect((await world.record(visitId)).facts.rotations.map((c) => c.current?.provisional)).toEqual([true, false]);
  });
});

describe('limits: core, the forms and the database say the same of the same edges', () => {
  const columns: Partial<Record<LimitName, { table: 'refraction' | 'lens' | 'rotation_reading'; column: string }>> = {
    sphere: { table: 'refraction', column: 'sphere_d' },
    cylinder: { table: 'refraction', column: 'cylinder_d' },
    axis: { table: 'refraction', column: 'axis_deg' },
    vertexMm: { table: 'refraction', column: 'vertex_mm' },
    nearCm: { table: 'refraction', column: 'near_cm' },
    rotationLeft: { table: 'rotation_reading', column: 'rotation_left_deg' },
    baseCurveMm: { table: 'lens', column: 'base_curve_mm' },
    diameterMm: { table: 'lens', column: 'diameter_mm' },
  };
  it.each(Object.entries(columns))('%s', async (name, { table, column }) => {
    const limit = LIMITS[name as LimitName];
    const step = limit.step ?? 1;
    const edges = [limit.min - step, limit.min, limit.min + step, limit.max - step, limit.max, limit.max + step];
    // Steps that need not be whole in the database (axis, millimetres to 0.05) are not tried off-step there.
    if (['sphere', 'cylinder', 'vertexMm'].includes(name)) edges.push(limit.min + step / 2);
    const visitId = await world.visit();
    const lensOnEyeId = table === 'rotation_reading' ? await onEyeOf(visitId) : null;
    for (const value of edges.map((v) => Math.round(v * 1000) / 1000)) {
      const inCore = withinLimit(value, limit) && onStep(value, limit);
      expect(limited(name as LimitName).safeParse(value).success, `form ${value}`).toBe(inCore);
      const row: Record<string, unknown> =
        table === 'lens'
          ? {
              practiceId: world.practiceId,
              familyVersionId: (await spec(world, 'godwit-made-toric', 0, 0, 180)).familyId,
              sphereD: 0,
              cylinderD: 0,
              axisDeg: 180,
            }
          : {
              rootId: '',
              practiceId: world.practiceId,
              visitId,
              visitVersion: 1,
              eye: 'right',
              observedAt: '2026-01-01T00:00:00Z',
              recordedAt: '2026-01-01T00:00:00Z',
              recordedBy: world.asha.personId,
              ...(table === 'refraction'
                ? { sphereD: 0, cylinderD: -1, axisDeg: 180, vertexMm: 12, typedText: '' }
                : { lensOnEyeId, rotationLeftDeg: 0, how: 'typed', provisional: false }),
            };
      const id = randomUUID();
      const camel = column.replace(/_([a-z])/g, (_, c: string) => c.toUpperCase());
      const full = { ...row, id, ...('rootId' in row ? { rootId: id } : {}), [camel]: value, ...(name === 'cylinder' && value === 0 ? { axisDeg: 180 } : {}) };
      const stored = await world.db.app`insert into ${world.db.app(table)} ${world.db.app(full as never)}`.then(
        () => true,
        () => false,
      );
      expect(stored, `database ${name} ${value}`).toBe(inCore);
    }
  });
  async function onEyeOf(visitId: string): Promise<string> {
    await world.must('putOnTrials', { visitId, version: 2, right: await spec(world, 'plover-30-toric', -2.5, -0.75, 180), left: null });
    return (await world.record(visitId)).facts.onEye[0]?.rootId ?? '';
  }
});

describe('bad input is refused at its field and nothing is half-saved', () => {
  it.each([
    ['axis 181', { right: '-1.00 -0.75 x 181' }, 'axisOutOfRange'],
    ['no axis', { right: '-1.00 -0.75' }, 'axisMissing'],
    ['no sign', { right: '300' }, 'bareNumber'],
    ['off step', { right: '3.1' }, 'sphereOffStep'],
    ['letters', { right: '-3.o0' }, 'notANumber'],
  ])('%s', async (_name, typed, code) => {
    const visitId = await world.visit();
    const result = await world.do('recordRefraction', { ...refraction(visitId, 2, null, '-1.00'), ...typed });
    expect(result).toMatchObject({ ok: false, error: { kind: 'invalid', fields: [{ path: ['right'], code }] } });
    expect((await world.record(visitId)).facts.refractions).toHaveLength(2);
    expect(await world.version(visitId)).toBe(2);
  });
  it('vertex 0, both eyes empty, a wearer without a birth date or from tomorrow', async () => {
    const visitId = await world.visit();
    expect(await world.do('recordRefraction', { ...refraction(visitId, 2, '-1.00'), vertexMm: 0 })).toMatchObject({
      error: { fields: [{ path: ['vertexMm'], code: 'vertexMmOutOfRange' }] },
    });
    expect(await world.do('recordRefraction', refraction(visitId, 2, null))).toMatchObject({ error: { fields: [{ code: 'oneEyeRequired' }] } });
    expect(await world.do('createWearer', { name: 'A B', birthDate: '' })).toMatchObject({
      error: { fields: [{ path: ['birthDate'], code: 'birthDateRequired' }] },
    });
    expect(await world.do('createWearer', { name: 'A B', birthDate: '2026-11-25' })).toMatchObject({
      error: { fields: [{ path: ['birthDate'], code: 'birthDateInFuture' }] },
    });
    expect(await world.do('createWearer', { name: 'A B', birthDate: '1899-12-31' })).toMatchObject({ error: { fields: [{ code: 'birthDateTooEarly' }] } });
  });
  it('the same name and birth date asks first', async () => {
    expect(await world.do('createWearer', { name: 'nessa quillby', birthDate: '14 Mar 1992' })).toMatchObject({
      error: { fields: [{ path: ['name'], code: 'wearerExists' }] },
    });
    expect((await world.do('createWearer', { name: 'Nessa Quillby', birthDate: '14 Mar 1992', sameNameIsAnother: true })).ok).toBe(true);
  });
  it('a lens that is not made cannot be put on', async () => {
    const visitId = await world.visit();
    const lens = await spec(world, 'plover-30-toric', -3, -1.75, 25);
    expect(await world.do('putOnTrials', { visitId, version: 2, right: lens, left: null })).toMatchObject({
      error: { fields: [{ path: ['right'], code: 'lensNotMade' }] },
    });
  });
  it('a closed visit takes nothing more', async () => {
    const visitId = await world.visit();
    await world.must('closeVisit', { visitId, version: 2 });
    expect(await world.do('recordRefraction', refraction(visitId, 3, '-1.00'))).toMatchObject({ error: { rule: 'visitClosed' } });
  });
});

describe('drafts', () => {
  it('the last version wins, whatever the order of arrival; they are apart from facts', async () => {
    const visitId = await world.visit();
    const draft = (right: string, sequence: number) => ({ visitId, step: 'refraction', body: { right }, sequence });
    await world.must('saveDraft', draft('-3', 2));
    expect(await world.do('saveDraft', draft('-', 1))).toMatchObject({ ok: false, error: { kind: 'conflict' } });
    expect((await world.record(visitId)).drafts).toMatchObject([{ body: { right: '-3' }, author: 'Asha Penhallow' }]);
    await world.must('recordRefraction', refraction(visitId, 2, '-3.00'));
    expect((await world.record(visitId)).drafts).toEqual([]);
  });
});

describe('audit', () => {
  it('reads and changes are both written down', async () => {
    const visitId = await world.visit();
    const rows = await world.db.owner<{ action: string }[]>`select action from audit_log where subject_id = ${visitId}`;
    await world.record(visitId);
    expect(rows.map((r) => r.action)).toEqual(expect.arrayContaining(['openVisit', 'recordRefraction']));
    const [read] = await world.db.owner<{ n: number }[]>`select count(*)::int as n from audit_log where subject_id = ${visitId} and action = 'readVisit'`;
    expect(read?.n).toBeGreaterThan(0);
  });
});
