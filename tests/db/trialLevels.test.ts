import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { DrawerPage } from '../../src/services/trialStock/queries';
import type { RestockPage } from '../../src/services/trialStock/levels';
import { fillDrawer } from '../support/drawer';
import { stockFaults } from '../support/stockFaults';
import { openNeighbour, openWorld, spec, type World } from './support';

let world: World;
let lens: Awaited<ReturnType<typeof spec>>;
const desk = () => world.callers.coordinator;
const POWER: readonly [number, number, number] = [-2, 0, 180];
const CODE = 'turnstone-30';
const lines = async () => ((await world.must('readRestock', {}, desk())) as unknown as RestockPage).lines;
const line = async () => (await lines()).find((l) => l.familyCode === CODE && l.sphereD === -2);
const level = (least: number) => world.do('setTrialLevels', { levels: [{ lens, least }] }, desk());
const lots = () => world.db.owner<{ id: string; count: number; lensId: string }[]>`
  select s.id, s.count, s.lens_id from trial_stock s join lens l on l.id = s.lens_id join lens_family_version f on f.id = l.family_version_id
  where f.code = ${CODE} and l.sphere_d = -2 order by s.expires_on`;
beforeAll(async () => {
  world = await openWorld();
  lens = await spec(world, CODE, ...POWER, 8.4, 14.2);
  await fillDrawer(world.db.owner, 1, { code: CODE, power: POWER });
}, 60_000);
afterAll(() => world.db.close());

describe('what the drawer keeps at least', () => {
  it('is said at its field when it cannot be, and holds once it is set', async () => {
    expect(await level(101)).toMatchObject({ error: { fields: [{ code: 'trialLevel' }] } });
    expect(await world.do('setTrialLevels', { levels: [{ lens: { ...lens, sphere: 9.1 }, least: 1 }] }, desk())).toMatchObject({ ok: false });
    expect(await line()).toBeUndefined();
    expect(await level(5)).toMatchObject({ ok: true });
    const { stock } = (await world.must('readDrawer', {}, desk())) as unknown as DrawerPage;
    expect(stock.filter((s) => s.familyCode === CODE && s.sphereD === -2).map((s) => s.least)).toEqual(expect.arrayContaining([5]));
  });
  it('asks for as many as are missing, from whoever sells them; what was ordered is waited for, what came fills it', async () => {
    const left = (await lots()).reduce((n, l) => n + l.count, 0);
    const first = await line();
    expect(first).toMatchObject({ least: 5, left, coming: 0, count: 5 - left + (first?.expiring ?? 0), why: 'below' });
    expect(first?.supplierName).toEqual(expect.any(String));
    const { csv } = (await world.must('exportRestock', {}, desk())) as unknown as { csv: string };
    expect(csv.split('\r\n')[0]).toBe('\uFEFFsupplier,maker,family,name,power,add,base_curve,diameter,count');
    expect(csv).toContain(`,turnstone-30,Turnstone 30,-2.00,,8.4,14.2,${first?.count}`);
    await world.must('recordRestock', { lines: [{ lensId: first?.lensId, count: 2 }] }, desk());
    expect(await line()).toMatchObject({ coming: 2, count: (first?.count ?? 0) - 2 });
    world.move(60);
    await world.must('receiveTrials', { lens, lot: 'R1', expiresOn: '1 Mar 2029', count: 2, despiteReason: '' }, desk());
    expect(await line()).toMatchObject({ coming: 0, left: left + 2, count: (first?.count ?? 0) - 2 });
  });
  it('what was ordered and never came is asked for again after a month', async () => {
    const before = await line();
    await world.must('recordRestock', { lines: [{ lensId: before?.lensId, count: before?.count }] }, desk());
    expect(await line()).toBeUndefined();
    world.move(31 * 86_400);
    expect(await line()).toMatchObject({ coming: 0, count: before?.count });
    world.move(-31 * 86_400);
  });
  it('no level: one that is used often and of which none is left; 0 keeps none', async () => {
    await level(0);
    expect(await line()).toBeUndefined();
    const other = await spec(world, CODE, -2.25, 0, 180, 8.4, 14.2);
    await fillDrawer(world.db.owner, 0, { code: CODE, power: [-2.25, 0, 180] });
    await world.must('receiveTrials', { lens: other, lot: 'U1', expiresOn: '1 Mar 2029', count: 2, despiteReason: '' }, desk());
    const used = async () => (await lines()).find((l) => l.familyCode === CODE && l.sphereD === -2.25);
    for (const record of [1, 2]) {
      const visitId = await world.visit(record, { right: '-2.25', left: '-2.25' });
      await world.must('putOnTrials', { visitId, version: 2, right: { ...other, inHand: null }, left: null });
      expect(await used())[record === 1 ? 'toBeUndefined' : 'toMatchObject']({ least: null, left: 0, used: 2, coming: 0, count: 1, why: 'used' });
    }
  });
});

describe('trial lenses that somebody borrows', () => {
  const stock = async () => {
    const [lot] = (await lots()).filter((l) => l.count > 1);
    if (!lot) throw new Error('no lot');
    return lot;
  };
  const lend = (of: object) => world.do('lendTrials', { count: 2, lentTo: 'the branch at the point', dueOn: null, ...of }, desk());
  const loans = async () => ((await world.must('readDrawer', {}, desk())) as unknown as DrawerPage).loans;
  it('leave the drawer with whose they are; what comes back unopened lies in its lot again', async () => {
    const lot = await stock();
    const of = { trialStockId: lot.id };
    expect(await lend({ ...of, count: lot.count + 1 })).toMatchObject({
      error: { fields: [{ path: ['count'], code: 'trialFewer', data: { left: lot.count } }] },
    });
    expect(await lend({ ...of, lentTo: ' ' })).toMatchObject({ error: { fields: [{ path: ['lentTo'], code: 'lentToRequired' }] } });
    expect(await lend({ ...of, dueOn: '1 Jan 2020' })).toMatchObject({ error: { fields: [{ path: ['dueOn'], code: 'dayPast' }] } });
    expect(await lend({ ...of, dueOn: '1 Feb 2027' })).toMatchObject({ ok: true });
    const [loan] = await loans();
    expect(loan).toMatchObject({ count: 2, lentTo: 'the branch at the point', dueOn: '2027-02-01' });
    const end = (returned: number) => world.do('endTrialLoan', { loanId: loan?.id, returned }, desk());
    expect(await end(3)).toMatchObject({ error: { fields: [{ path: ['returned'], code: 'trialFewer', data: { left: 2 } }] } });
    const done = await Promise.all([end(1), end(1)]);
    expect(done.filter((d) => d.ok)).toHaveLength(1);
    expect(await loans()).toEqual([]);
    expect((await lots()).find((l) => l.id === lot.id)?.count).toBe(lot.count - 1);
    expect(await stockFaults(world.db.owner)).toEqual([]);
  });
  it('is appended: nobody writes a loan away', async () => {
    for (const table of ['trial_loan', 'trial_loan_end', 'trial_level', 'trial_restock'])
      await expect(world.db.app.unsafe(`delete from ${table}`)).rejects.toThrow(/permission denied/);
  });
});

describe('a pack of trial lenses that is scanned', () => {
  const gtin = '06291041500213';
  const receive = (of: object) => world.do('receiveTrials', { lens, lot: 'S1', expiresOn: '1 Mar 2029', count: 1, despiteReason: '', gtin, ...of }, desk());
  it('teaches its code once, is known from then on, and is refused as another lens', async () => {
    expect(await world.must('readTrialBox', { gtin }, desk())).toEqual({ lens: null });
    expect(await world.do('readTrialBox', { gtin: '06291041500214' }, desk())).toMatchObject({ error: { fields: [{ code: 'gtinWrong' }] } });
    expect(await receive({})).toMatchObject({ ok: true });
    expect(await receive({})).toMatchObject({ ok: true });
    expect(await world.must('readTrialBox', { gtin }, desk())).toMatchObject({ lens: { familyCode: CODE, sphereD: -2 } });
    expect(await world.db.owner`select 1 from package_code where gtin = ${gtin}`).toHaveLength(1);
    expect(await receive({ lens: { ...lens, sphere: -2.5 } })).toMatchObject({
      error: { fields: [{ path: ['gtin'], code: 'codeOfOtherLens', data: { power: '\u22122.00' } }] },
    });
    expect(await receive({ lens: { ...lens, sphere: -2.5 }, gtin: null })).toMatchObject({ ok: true });
  });
});

describe('another practice', () => {
  it('finds none of it', async () => {
    const lensId = (await lots())[0]?.lensId;
    const { caller } = await openNeighbour(world);
    expect(await world.do('recordRestock', { lines: [{ lensId, count: 1 }] }, caller)).toMatchObject({ error: { kind: 'notFound' } });
    expect(((await world.must('readRestock', {}, caller)) as unknown as RestockPage).levels).toBe(0);
  });
});
