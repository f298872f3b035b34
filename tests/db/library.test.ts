import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { rangeValues } from '../../src/core';
import { claimImport, isImportWaiting, noteProgress } from '../../src/db/catalogueImport';
import { importOne, MOST_FAMILIES } from '../../src/jobs/importCatalogue';
import type { Consequences } from '../../src/services/family/commands';
import type { FamilyPage, LibraryPage } from '../../src/services/family/queries';
import type { ImportPage } from '../../src/services/catalogueImport/queries';
import { openWorld, SENTENCES, spec, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

const admin = () => world.callers.admin;
const family = async (code: string): Promise<FamilyPage> => (await world.must('readFamily', { code })) as unknown as FamilyPage;
const library = async (): Promise<LibraryPage> => (await world.must('readLibrary', {})) as unknown as LibraryPage;
const save = (input: object) => world.do('saveFamily', { startsOn: '2026-11-24', confirm: true, ...input }, admin());
/** A prescription signed for wearer `n`, both routes left aside: from the refraction alone. */
async function prescribed(
  n: number,
  code: string,
  sphere: number,
  cylinder: number,
  axis: number,
  diameter = 14.2,
): Promise<{ visitId: string; prescriptionId: string }> {
  const visitId = await world.visit(n, { right: '-3.25 -1.75 x 20', left: null });
  const { prescriptionId = '' } = await world.must('sign', {
    visitId,
    version: await world.version(visitId),
    password: 'plain-sight',
    right: { mode: 'final', lens: await spec(world, code, sphere, cylinder, axis, 8.6, diameter), triedLensOnEyeId: null },
    left: null,
    expiresOn: '2027-11-24',
    waitNote: 'known wearer',
    daysPerWeek: 7,
    overrides: SENTENCES,
  });
  return { visitId, prescriptionId };
}

describe('a family and its versions', () => {
  it('a change shows its consequences first, and saves nothing', async () => {
    await prescribed(1, 'plover-30-toric', -3, -1.75, 20);
    const before = await family('plover-30-toric');
    const without = before.lines.map((l) => ({ ...l, cylinders: '-0.75|-1.25' }));
    const shown = await world.must('saveFamily', { code: 'plover-30-toric', baseVersion: 1, startsOn: '2026-11-24', lines: without, confirm: false }, admin());
    const consequences = shown as unknown as Consequences;
    expect(consequences).toMatchObject({ saved: false, prescriptions: 1, lost: [{ name: 'Nessa Quillby', eye: 'right' }] });
    expect(consequences.drawerLost).toBeGreaterThan(0);
    expect((await family('plover-30-toric')).versions).toHaveLength(1);
  });
  it('saved, it is a new version; what was prescribed keeps its own, and the lens is no longer made', async () => {
    const before = await family('plover-30-toric');
    const saved = await save({ code: 'plover-30-toric', baseVersion: 1, lines: before.lines.map((l) => ({ ...l, cylinders: '-0.75|-1.25' })) });
    expect(saved.ok).toBe(true);
    const after = await family('plover-30-toric');
    expect(after.versions.map((v) => v.version)).toEqual([2, 1]);
    expect(after.inForce?.blocks[0]?.cylinders).toEqual([-0.75, -1.25]);
    expect(after.versions[1]?.blocks[0]?.cylinders).toEqual([-0.75, -1.25, -1.75, -2.25]);
    expect(after.use).toHaveLength(1);
    const visitId = await world.visit(4, { right: '-3.25 -1.75 x 20', left: null });
    const [old] = await world.db.owner<{ id: string }[]>`select id from lens_family_version where code = 'plover-30-toric' and version = 1`;
    const lens = { familyId: old?.id ?? '', sphere: -3, cylinder: -1.75, axis: 20, add: null, baseCurve: 8.6, diameter: 14.2 };
    expect(await world.do('putOnTrials', { visitId, version: 2, right: lens, left: null })).toMatchObject({
      ok: false,
      error: { fields: [{ path: ['right'], code: 'lensNotMade' }] },
    });
  });
  it('a trial lens bought under an earlier version still goes on the eye, as the lens it is', async () => {
    const visitId = await world.visit(5, { right: '-3.00 -1.25 x 20', left: null });
    const [now] = await world.db.owner<{ id: string }[]>`select id from lens_family_version where code = 'plover-30-toric' and version = 2`;
    const lens = { familyId: now?.id ?? '', sphere: -3, cylinder: -1.25, axis: 20, add: null, baseCurve: 8.6, diameter: 14.2 };
    await world.must('putOnTrials', { visitId, version: 2, right: lens, left: null });
    const record = await world.record(visitId);
    const on = record.facts.onEye[0]?.current;
    expect(on?.lot).toBeTruthy();
    expect(record.lenses[on?.lensId ?? '']).toMatchObject({ familyCode: 'plover-30-toric', sphereD: -3, cylinderD: -1.25 });
    const [version] = await world.db.owner<{ version: number }[]>`
      select f.version from lens l join lens_family_version f on f.id = l.family_version_id where l.id = ${on?.lensId ?? ''}`;
    expect(version?.version).toBe(1);
  });
  it('announced for later, the version in force holds until its day', async () => {
    const before = await family('dunlin-1-day');
    await save({ code: 'dunlin-1-day', baseVersion: 1, startsOn: '2027-01-01', lines: before.lines.map((l) => ({ ...l, pack_price: '30.00' })) });
    expect((await family('dunlin-1-day')).inForce?.packPriceMinor).toBe(2450);
    const [row] = await world.db.owner<{ price: number }[]>`
      select pack_price_minor as price from lens_family_version where code = 'dunlin-1-day' and version = 2`;
    expect(row?.price).toBe(3000);
    // A version that begins sooner but is saved later does not hide the one announced.
    await save({ code: 'dunlin-1-day', baseVersion: 2, startsOn: '2026-12-01', lines: before.lines.map((l) => ({ ...l, pack_price: '25.00' })) });
    expect((await family('dunlin-1-day')).inForce?.packPriceMinor).toBe(2450);
  });
  it('two people at once: the second is told, nothing is lost', async () => {
    const before = await family('sanderling-14');
    const [first, second] = await Promise.all([1, 2].map(() => save({ code: 'sanderling-14', baseVersion: 1, lines: before.lines })));
    expect([first?.ok, second?.ok].sort()).toEqual([false, true]);
    expect([first, second].find((r) => r && !r.ok)).toMatchObject({ error: { kind: 'conflict', what: 'family', differs: [{ by: 'Merle Vantongeren' }] } });
  });
  it('faults are named at their row and column; a start in the past, a family without blocks', async () => {
    const { lines } = await family('sanderling-14-toric');
    const bad = lines.map((l, i) => (i === 1 ? { ...l, axis_to: '181' } : l));
    expect(await save({ code: 'sanderling-14-toric', baseVersion: 1, lines: bad })).toMatchObject({
      ok: false,
      error: { fields: [{ path: ['lines', '1', 'axis_to'], code: 'catalogueRange' }] },
    });
    expect(await save({ code: 'sanderling-14-toric', baseVersion: 1, startsOn: '2026-11-23', lines })).toMatchObject({
      error: { fields: [{ code: 'startPast' }] },
    });
    expect(await save({ code: 'sanderling-14-toric', baseVersion: 1, lines: [] })).toMatchObject({ error: { fields: [{ code: 'blockRequired' }] } });
    expect((await family('sanderling-14-toric')).versions).toHaveLength(1);
  });
  it('a family that is new', async () => {
    const { lines } = await family('turnstone-30');
    await save({ code: 'whimbrel-30', baseVersion: 0, lines: lines.map((l) => ({ ...l, name: 'Whimbrel 30' })) });
    expect((await library()).families.map((f) => f.code)).toContain('whimbrel-30');
    expect(await save({ code: 'whimbrel-30', baseVersion: 0, lines })).toMatchObject({ error: { kind: 'conflict' } });
  });
});

describe('the end of a family', () => {
  it('is set with what replaces it, and taken back; both stay on record', async () => {
    const end = (input: object) =>
      world.do('endFamily', { code: 'knot-1-day', lastOrderOn: '2026-11-23', replacedBy: 'dunlin-1-day', reason: 'maker ends it', ...input }, admin());
    expect(await end({ replacedBy: 'knot-1-day' })).toMatchObject({ error: { fields: [{ code: 'replacesItself' }] } });
    expect(await end({ replacedBy: 'no-such' })).toMatchObject({ error: { fields: [{ code: 'familyUnknown' }] } });
    expect((await end({})).ok).toBe(true);
    expect((await library()).families.find((f) => f.code === 'knot-1-day')).toMatchObject({ lastOrderOn: '2026-11-23', replacedBy: 'dunlin-1-day' });
    const visitId = await world.visit(6, { right: '-3.00', left: null });
    const lens = await spec(world, 'knot-1-day', -3, 0, 180, 8.4, 14);
    expect(await world.do('putOnTrials', { visitId, version: 2, right: lens, left: null })).toMatchObject({ error: { fields: [{ code: 'familyEnded' }] } });
    expect((await end({ lastOrderOn: null, replacedBy: null, reason: 'it goes on' })).ok).toBe(true);
    expect((await library()).families.find((f) => f.code === 'knot-1-day')).toMatchObject({ lastOrderOn: null, replacedBy: null });
    expect((await world.do('putOnTrials', { visitId, version: 2, right: lens, left: null })).ok).toBe(true);
    const [rows] = await world.db.owner<{ count: number }[]>`select count(*)::int as count from lens_family_ending where code = 'knot-1-day'`;
    expect(rows?.count).toBe(2);
  });
  it('an ended family is not ordered any more, though it was prescribed', async () => {
    const { visitId, prescriptionId } = await prescribed(7, 'godwit-made-toric', -3, -1.5, 20, 14.4);
    await world.must('endFamily', { code: 'godwit-made-toric', lastOrderOn: '2026-11-23', replacedBy: null, reason: 'maker ends it' }, admin());
    const order = { visitId, version: await world.version(visitId), requestKey: randomUUID(), prescriptionId, rightPacks: 1, leftPacks: 0 };
    expect(await world.do('placeOrder', order)).toMatchObject({ error: { fields: [{ path: ['rightPacks'], code: 'familyEnded' }] } });
    await world.must('endFamily', { code: 'godwit-made-toric', lastOrderOn: null, replacedBy: null, reason: 'mistake' }, admin());
    expect((await world.do('placeOrder', order)).ok).toBe(true);
  });
});

describe('hard filters are kept by the server too', () => {
  it('an age label, and too little oxygen where the practice leaves such lenses out', async () => {
    const { lines } = await family('turnstone-30');
    await save({ code: 'turnstone-30', baseVersion: 1, lines: lines.map((l) => ({ ...l, min_age: '40' })) });
    const visitId = await world.visit(8, { right: '-3.00', left: null });
    const lens = await spec(world, 'turnstone-30', -3, 0, 180, 8.4, 14.2);
    const young = await world.visit(9, { right: '-3.00', left: null });
    expect(await world.do('putOnTrials', { visitId: young, version: 2, right: lens, left: null })).toMatchObject({
      error: { kind: 'ruleBroken', rule: 'leftOut.ageLabel', data: { age: 40 } },
    });
    // A label is a judgement: a prescriber passes it with a sentence that is kept, nobody else.
    const why = { right: lens, left: null, despiteReason: 'no lens labelled for the age is made in this power' };
    expect(await world.do('putOnTrials', { visitId: young, version: 2, ...why }, world.callers.technician)).toMatchObject({
      error: { rule: 'leftOut.ageLabel' },
    });
    expect((await world.do('putOnTrials', { visitId: young, version: 2, ...why })).ok).toBe(true);
    expect((await world.record(young)).health.overrides).toMatchObject([{ rule: 'ageLabel', reason: why.despiteReason }]);
    expect((await world.do('putOnTrials', { visitId, version: 2, right: lens, left: null })).ok).toBe(true);
    await world.must('changeSetting', { key: 'oxygenByDay', value: 'leaveOut', lastChangeId: await lastChange('oxygenByDay') }, admin());
    const dunlin = await spec(world, 'dunlin-1-day', -3, 0, 180, 8.5, 14.2);
    expect(await world.do('putOnTrials', { visitId: young, version: 3, right: dunlin, left: null })).toMatchObject({ error: { rule: 'leftOut.oxygenByDay' } });
    await world.must('changeSetting', { key: 'oxygenByDay', value: 'warn', lastChangeId: await lastChange('oxygenByDay') }, admin());
    expect((await world.do('putOnTrials', { visitId: young, version: 3, right: dunlin, left: null })).ok).toBe(true);
  });
  const lastChange = async (key: string): Promise<string> => {
    const [row] = await world.db.owner<{ id: string }[]>`select id from practice_setting where key = ${key} order by sequence desc limit 1`;
    return row?.id ?? '';
  };
});

describe('house list and care products', () => {
  it('a cell takes up to three of its own kind; the second of two is told', async () => {
    const cell = (await library()).houseList.find((h) => h.modality === 'monthly' && h.geometry === 'toric');
    const change = (codes: string[], lastId: string | null) => world.do('changeHouseList', { modality: 'monthly', geometry: 'toric', codes, lastId }, admin());
    expect(await change(['turnstone-30'], cell?.id ?? null)).toMatchObject({ error: { fields: [{ path: ['codes', '0'], code: 'familyUnknown' }] } });
    expect(await change(['plover-30-toric', 'plover-30-toric'], cell?.id ?? null)).toMatchObject({ error: { fields: [{ code: 'houseListTwice' }] } });
    expect((await change(['godwit-made-toric', 'plover-30-toric'], cell?.id ?? null)).ok).toBe(true);
    expect(await change([], cell?.id ?? null)).toMatchObject({ error: { kind: 'conflict', differs: [{ text: 'godwit-made-toric, plover-30-toric' }] } });
  });
  it('a care product changes by versions; an ended one stays on record', async () => {
    const product = {
      productId: null,
      version: 0,
      system: 'peroxide',
      maker: 'Foreshore',
      name: 'Kelp',
      contents: '240 ml',
      lastsDays: 30,
      price: 12.5,
      includesCase: true,
      ended: false,
    };
    const { productId = '' } = await world.must('saveCareProduct', product, admin());
    const change = { ...product, productId, version: 1, price: 13.25 };
    expect((await world.do('saveCareProduct', change, admin())).ok).toBe(true);
    expect(await world.do('saveCareProduct', change, admin())).toMatchObject({ error: { kind: 'conflict', what: 'careProduct' } });
    await world.must('saveCareProduct', { ...change, version: 2, ended: true }, admin());
    const rows = await world.db.owner<{ version: number; priceMinor: number; ended: boolean }[]>`
      select version, price_minor, ended from care_product where product_id = ${productId} order by version`;
    expect(rows.map((r) => [r.version, r.priceMinor, r.ended])).toEqual([
      [1, 1250, false],
      [2, 1325, false],
      [3, 1325, true],
    ]);
    const bad = await world.do('saveCareProduct', { ...product, lastsDays: 0, name: ' ' }, admin());
    expect(bad.ok ? [] : bad.error.kind === 'invalid' ? bad.error.fields.map((f) => f.code).sort() : []).toEqual(['lastsDaysRange', 'required']);
  });
});

describe('a near add and prism beside a refraction', () => {
  it('are recorded with their source, and outlive a correction of the power', async () => {
    const { visitId = '' } = await world.must('openVisit', { wearerId: await world.wearerId(3), kind: 'refit' });
    await world.must('recordRefraction', {
      visitId,
      version: 1,
      right: '+1.00 -0.50 x 90 2Δ BO',
      left: '+1.25',
      vertexMm: 12,
      rightAdd: '+1.75',
      leftAdd: null,
      addSource: 'measured',
      nearCm: 40,
      rightNear: 'N5',
    });
    const fact = (await world.record(visitId)).facts.refractions.find((c) => c.current?.eye === 'right')?.current;
    expect(fact).toMatchObject({
      addD: 1.75,
      addSource: 'measured',
      prismText: '2Δ BO',
      sphereD: 1,
      nearCm: 40,
      nearAcuityTyped: 'N5',
      nearAcuityLogMar: 0.19,
    });
    await world.must('correct', {
      visitId,
      version: 2,
      kind: 'refraction',
      factId: fact?.id,
      reason: 'misread',
      value: { as: 'power', text: '+1.25 -0.50 x 90', vertexMm: 12 },
    });
    expect((await world.record(visitId)).facts.refractions.find((c) => c.current?.eye === 'right')?.current).toMatchObject({
      sphereD: 1.25,
      addD: 1.75,
      prismText: '2Δ BO',
    });
    const again = { visitId, version: 3, left: null, vertexMm: 12, nearCm: 40 };
    expect(await world.do('recordRefraction', { ...again, right: '+1.00', rightAdd: '1.6' })).toMatchObject({
      error: { fields: [{ path: ['rightAdd'], code: 'addOffStep', repairs: ['+1.50'] }] },
    });
    expect(await world.do('recordRefraction', { ...again, right: '+1.00', leftAdd: '1.5' })).toMatchObject({
      error: { fields: [{ path: ['leftAdd'], code: 'addNeedsPower' }] },
    });
    expect(await world.do('recordRefraction', { ...again, right: '+1.00', rightAdd: '1.5', nearCm: null })).toMatchObject({
      error: { fields: [{ path: ['nearCm'], code: 'addWithoutDistance' }] },
    });
    expect(await world.do('recordRefraction', { ...again, right: '+1.00', rightNear: 'J2' })).toMatchObject({
      error: { fields: [{ path: ['rightNear'], code: 'nearAcuityJaeger' }] },
    });
    expect(await world.do('recordRefraction', { ...again, right: '+1.00', rightAdd: '1.5', nearCm: 400 })).toMatchObject({
      error: { fields: [{ path: ['nearCm'], code: 'nearCmOutOfRange' }] },
    });
  });
});

const deps = () => ({ sql: world.db.app, clock: world.deps.clock });
const upload = async (text: string): Promise<string> =>
  (await world.must('recordImport', { fileName: 'catalogue.csv', bytes: new TextEncoder().encode(text) }, admin())).importId ?? '';
const look = async (importId: string): Promise<ImportPage> => (await world.must('readImport', { importId }, admin())) as unknown as ImportPage;
const exported = async (): Promise<string> => (await world.must('exportCatalogue', {})).csv ?? '';
const versions = async (): Promise<number> => (await world.db.owner<{ n: number }[]>`select count(*)::int as n from lens_family_version`)[0]?.n ?? 0;
const HEAD =
  'family_code,maker,name,geometry,modality,material,mark_layout,settle_minutes,pack_size,pack_price,lead_days,sphere_from,sphere_to,sphere_step,cylinders,axis_from,axis_to,axis_step,adds,curves';

describe('bringing in a catalogue', () => {
  it('the library’s own file has nothing new in it', async () => {
    const importId = await upload(await exported());
    expect(await importOne(deps())).toBe(true);
    const page = await look(importId);
    expect(page.file.state).toBe('checked');
    expect(page.faultCounts).toEqual({ stop: 0, watch: 0 });
    expect([...new Set(page.families.map((f) => f.change))]).toEqual(['same']);
    expect(await world.do('takeImport', { importId, startsOn: '2026-11-24' }, admin())).toMatchObject({ error: { rule: 'nothingToTake' } });
    await world.must('cancelImport', { importId }, admin());
    expect((await look(importId)).file.state).toBe('cancelled');
  });
  it('three kinds of error: each named by its line; families without fault are taken in, the others stay as they were', async () => {
    const before = await versions();
    const lines = (await exported()).trimEnd().split('\r\n');
    const at = (code: string): number => lines.findIndex((l) => l.startsWith(code));
    const spoil = (code: string, from: string, to: string): number => {
      const i = at(code);
      lines[i] = lines[i]?.replace(from, to) ?? '';
      return i + 1;
    };
    const formula = spoil('curlew-multifocal', 'Curlew Multifocal', '=1+1');
    const axis = spoil('sanderling-14-toric', ',180,', ',181,');
    const price = spoil('knot-1-day', '31.00', '33.00');
    const importId = await upload(lines.join('\r\n'));
    await importOne(deps());
    const page = await look(importId);
    expect(page.faults.map((f) => [f.line, f.gravity, f.code])).toEqual(
      [
        [formula, 'stop', 'catalogueFormula'],
        [axis, 'stop', 'catalogueRange'],
        // The price stands on the family's first line; its later lines still name the old one.
        [price + 1, 'stop', 'catalogueContradicts'],
      ].sort((a, b) => Number(a[0]) - Number(b[0])),
    );
    expect(await versions()).toBe(before);
    expect(await world.do('takeImport', { importId, startsOn: '2026-11-24' }, admin())).toMatchObject({ error: { rule: 'nothingToTake' } });
    for (const i of [at('knot-1-day'), at('knot-1-day') + 1]) lines[i] = lines[i]?.replace('31.00', '33.00') ?? '';
    const second = await upload(lines.join('\r\n'));
    await importOne(deps());
    expect((await look(second)).families.filter((f) => f.change === 'changed' && f.faultCount === 0).map((f) => f.code)).toEqual(['knot-1-day']);
    await world.must('takeImport', { importId: second, startsOn: '2026-11-24' }, admin());
    await importOne(deps());
    expect((await look(second)).file).toMatchObject({ state: 'taken', notes: { taken: 1 } });
    expect(await versions()).toBe(before + 1);
    expect((await library()).families.find((f) => f.code === 'knot-1-day')?.packPriceMinor).toBe(3300);
    expect((await library()).families.find((f) => f.code === 'curlew-multifocal')?.name).toBe('Curlew Multifocal');
  });
  it('a broken file changes nothing, and says why', async () => {
    const before = await versions();
    for (const [text, code] of [
      ['', 'fileEmpty'],
      ['colour,size\nred,3', 'fileColumns'],
      [`${HEAD}\nx,"y`, 'fileQuote'],
    ] as const) {
      const importId = await upload(text);
      await importOne(deps());
      expect((await look(importId)).file).toMatchObject({ state: 'broken', notes: { code } });
      expect(await world.do('takeImport', { importId, startsOn: '2026-11-24' }, admin())).toMatchObject({ ok: false });
    }
    expect(await versions()).toBe(before);
  });
  it('a database that fails half-way leaves nothing half taken', async () => {
    const before = await versions();
    const two = ['aaa-one', 'zzz-two'].map((code) => `${code},M,${code},sphere,monthly,hydrogel,none,5,6,30.00,5,-6,6,0.25,,,,,,8.6/14.2`);
    const importId = await upload([HEAD, ...two].join('\n'));
    await importOne(deps());
    await world.must('takeImport', { importId, startsOn: '2026-11-24' }, admin());
    await world.db.owner.unsafe(`alter table lens_family_version add constraint no_zzz check (code <> 'zzz-two')`);
    await expect(importOne(deps())).rejects.toThrow();
    await world.db.owner.unsafe('alter table lens_family_version drop constraint no_zzz');
    expect(await versions()).toBe(before);
    expect((await look(importId)).file.state).toBe('taking');
    // Left lying, it is taken up again and done whole.
    await world.db.owner`update catalogue_import set claimed_at = clock_timestamp() - interval '2 minutes' where id = ${importId}`;
    await importOne(deps());
    expect((await look(importId)).file.state).toBe('taken');
    expect(await versions()).toBe(before + 2);
  });
  it('a file that ends whoever reads it is tried twice, and then given up, said so', async () => {
    const importId = await upload([HEAD, 'ccc-one,M,C,sphere,monthly,hydrogel,none,5,6,30.00,5,-6,6,0.25,,,,,,8.6/14.2'].join('\n'));
    for (const attempts of [1, 2]) {
      expect(await isImportWaiting(world.db.app)).toBe(true);
      // Taken in hand, and never heard of again.
      expect(await claimImport(world.db.app)).toMatchObject({ id: importId, attempts });
      expect(await isImportWaiting(world.db.app)).toBe(false);
      await world.db.owner`update catalogue_import set claimed_at = clock_timestamp() - interval '2 minutes' where id = ${importId}`;
    }
    expect(await importOne(deps())).toBe(true);
    expect((await look(importId)).file).toMatchObject({ state: 'broken', notes: { code: 'importGivenUp' } });
    expect(await isImportWaiting(world.db.app)).toBe(false);
  });
  it('a file of far too many families is refused before its lines are read; of many, a page is shown and all are counted', async () => {
    const line = (i: number) => `m-${i},M,Many ${i},sphere,monthly,hydrogel,none,5,6,30.00,5,-6,6,0.25,,,,,,8.6/14.2`;
    const lines = (count: number) => [HEAD, ...Array.from({ length: count }, (_, i) => line(i))].join('\n');
    const tooMany = await upload(lines(MOST_FAMILIES + 1));
    await importOne(deps());
    expect((await look(tooMany)).file).toMatchObject({ state: 'broken', notes: { code: 'fileFamilies', families: MOST_FAMILIES + 1 } });
    const many = await upload(lines(400));
    await importOne(deps());
    const page = await look(many);
    expect(page.families).toHaveLength(300);
    expect(page.counts).toEqual({ take: { families: 400, lines: 400 }, left: 0, same: 0 });
    await world.must('cancelImport', { importId: many }, admin());
  });
  it('stopped while it is being taken in, nothing is taken', async () => {
    const before = await versions();
    const importId = await upload([HEAD, 'bbb-one,M,B,sphere,monthly,hydrogel,none,5,6,30.00,5,-6,6,0.25,,,,,,8.6/14.2'].join('\n'));
    await importOne(deps());
    await world.must('takeImport', { importId, startsOn: '2026-11-24' }, admin());
    await world.db.owner`update catalogue_import set cancel_asked = true where id = ${importId}`;
    await importOne(deps());
    expect((await look(importId)).file.state).toBe('cancelled');
    expect(await versions()).toBe(before);
  });
  it('fifty thousand lines, power by power: progress is seen, and they come in as the ranges they are', async () => {
    const spheres = rangeValues({ from: -6, to: 6, step: 0.25 });
    const cylinders = [-0.75, -1.25, -1.75];
    const axes = rangeValues({ from: 10, to: 180, step: 10 });
    const facts = (n: number): string => `bulk-${n},Maker,Bulk ${n},toric,monthly,hydrogel,six,10,6,30.00,5`;
    const rows = Array.from({ length: 19 }, (_, n) =>
      spheres.flatMap((s) => cylinders.flatMap((c) => axes.map((a) => `${facts(n)},${s},${s},0.25,${c},${a},${a},10,,8.6/14.2`))),
    ).flat();
    expect(rows.length).toBeGreaterThan(50_000);
    const importId = await upload([HEAD, ...rows].join('\n'));
    const working = importOne(deps());
    let seen = 0;
    for (let i = 0; i < 4000 && seen === 0; i++) {
      const { file } = await look(importId);
      if (file.state === 'checking' && file.rowsDone > 0 && file.rowsDone < rows.length) seen = file.rowsDone;
      if (file.state === 'checked') break;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    await working;
    expect(seen).toBeGreaterThan(0);
    const page = await look(importId);
    expect(page.file).toMatchObject({ state: 'checked', rowsTotal: rows.length, rowsDone: rows.length });
    expect(page.faultCounts).toEqual({ stop: 0, watch: 0 });
    await world.must('takeImport', { importId, startsOn: '2026-11-24' }, admin());
    await importOne(deps());
    const bulk = (await library()).families.filter((f) => f.code.startsWith('bulk-'));
    expect(bulk).toHaveLength(19);
    expect(bulk[0]?.blocks).toEqual([
      {
        spheres: { from: -6, to: 6, step: 0.25 },
        cylinders: [-0.75, -1.25, -1.75],
        axes: { from: 10, to: 180, step: 10 },
        adds: [null],
        curves: [{ baseCurve: 8.6, diameter: 14.2 }],
      },
    ]);
  });
  it('stopped while it is read, it is cancelled', async () => {
    const importId = await upload(await exported());
    await world.db.owner`update catalogue_import set cancel_asked = true where id = ${importId}`;
    await importOne(deps());
    expect((await look(importId)).file.state).toBe('cancelled');
  });
  it('two jobs never work on one file', async () => {
    const importId = await upload(await exported());
    const claims = await Promise.all([claimImport(world.db.app), claimImport(world.db.app)]);
    expect(claims.filter((c) => c !== null)).toHaveLength(1);
    expect(await noteProgress(world.db.app, importId, 1, 2)).toBe(false);
  });
});
