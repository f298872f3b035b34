import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { careTopicsFor } from '../../src/core';
import { fillDrawer } from '../support/drawer';
import { homeToken, openWorld, taughtAndGiven, type World } from './support';

let world: World;
let visitId = '';
beforeAll(async () => {
  world = await openWorld();
  await fillDrawer(world.db.owner, 50);
  visitId = await taughtAndGiven(world);
}, 180_000);
afterAll(() => world.db.close());

const give = (input: object = {}) => world.do('giveTakeHome', { visitId, language: 'en', way: 'paper', ...input }, world.callers.technician);
const desk = async (of = visitId) => {
  const read = await world.do('readHomePage', { visitId: of });
  if (!read.ok) throw new Error(read.error.kind);
  return read.value as unknown as {
    page: { product: { soakMinutes: number; name: string } | null; saidBack: string[]; hours: unknown[] } | null;
    missing: string[];
    given: { number: number; way: string }[];
  };
};

describe('two records of one person', () => {
  it('made one bring both their pages', async () => {
    const [one, two] = [await taughtAndGiven(world), await taughtAndGiven(world)];
    for (const of of [one, two]) {
      await world.must('giveTakeHome', { visitId: of, language: 'en', way: 'paper' });
      await world.must('closeVisit', { visitId: of, version: await world.version(of) });
    }
    const [a, b] = await world.db.owner<{ id: string; version: number }[]>`
      select w.id, w.version from wearer w join visit v on v.wearer_id = w.id where v.id in ${world.db.owner([one, two])}`;
    const merged = await world.do(
      'mergeWearers',
      { keepId: a?.id, keepVersion: a?.version, otherId: b?.id, otherVersion: b?.version, reason: 'the same person' },
      world.callers.admin,
    );
    expect(merged).toMatchObject({ ok: true });
    const rows = await world.db.owner<{ n: number }[]>`select count(*)::int as n from take_home_sheet where wearer_id = ${a?.id ?? ''}`;
    expect(rows[0]?.n).toBe(2);
  });
});

describe('the page to take home', () => {
  it('is of what was handed over, prescribed, taught and said back', async () => {
    const { page, missing } = await desk();
    expect(missing).toEqual([]);
    expect(page).toMatchObject({
      emergencyTelephone: expect.stringMatching(/\d/) as string,
      handedOn: '2026-11-24',
      lenses: { right: { sphereD: -2, modality: 'monthly' }, left: null },
      product: { name: 'Tidewash', system: 'multipurpose' },
      saidBack: [...careTopicsFor({ singleUse: false, system: 'multipurpose' })],
      notSaidBack: [],
    });
    expect(page?.hours).toHaveLength(4);
  });
  it('is kept as it was given, under its number; two at once get two numbers', async () => {
    const given = await Promise.all([give(), give({ language: 'es', way: 'file' })]);
    const numbers = given.map((g) => (g.ok ? (g.value as unknown as { number: number }).number : 0));
    expect(numbers.toSorted()).toEqual([1, 2]);
    expect((await desk()).given.map((g) => g.way).toSorted()).toEqual(['file', 'paper']);
    await expect(world.db.app`update take_home_sheet set number = 9`).rejects.toThrow(/permission denied/);
    await expect(world.db.app`delete from take_home_sheet`).rejects.toThrow(/permission denied/);
  });
  it('given is given: a changed label changes the next page, not the one at home', async () => {
    const { sheetId } = await world.must('giveTakeHome', { visitId, language: 'en', way: 'paper' }, world.callers.technician);
    await world.db.owner`
      insert into care_product (id, practice_id, product_id, version, system, maker, name, contents, lasts_days, price_minor, includes_case, own_label,
        soak_minutes, store_days, discard_days, catalyst_days, ended, recorded_at, recorded_by)
      select gen_random_uuid(), practice_id, product_id, version + 1, system, maker, name, contents, lasts_days, price_minor, includes_case, own_label,
        soak_minutes + 60, store_days, discard_days, catalyst_days, ended, recorded_at, recorded_by
      from care_product where name = 'Tidewash' and practice_id = ${world.practiceId} order by version desc limit 1`;
    const before = await world.do('readSheet', { sheetId });
    const soak = before.ok ? (before.value as unknown as { sheet: { page: { product: { soakMinutes: number } } } }).sheet.page.product.soakMinutes : 0;
    expect((await desk()).page?.product?.soakMinutes).toBe(soak + 60);
  });
  it('needs a hand-over at the visit, and an emergency number', async () => {
    const other = await world.visit(3, { right: '-2.00', left: null });
    expect((await desk(other)).missing).toEqual(['handOver']);
    expect(await give({ visitId: other })).toMatchObject({ error: { rule: 'takeHomeMissing', data: { missing: 'handOver' } } });
    await world.db.owner`update practice set emergency_telephone = null where id = ${world.practiceId}`;
    expect((await desk()).missing).toEqual(['emergencyTelephone']);
    for (const way of ['paper', 'file', 'link']) expect(await give({ way })).toMatchObject({ error: { rule: 'takeHomeMissing' } });
    await world.db.owner`update practice set emergency_telephone = '555 0190' where id = ${world.practiceId}`;
  });
  it('a solution that is no longer sold is named again by a prescriber before the page is given', async () => {
    await world.db.owner`
      insert into care_product (id, practice_id, product_id, version, system, maker, name, contents, lasts_days, price_minor, includes_case, own_label,
        soak_minutes, store_days, discard_days, catalyst_days, ended, recorded_at, recorded_by)
      select gen_random_uuid(), practice_id, product_id, version + 1, system, maker, name, contents, lasts_days, price_minor, includes_case, own_label,
        soak_minutes, store_days, discard_days, catalyst_days, true, recorded_at, recorded_by
      from care_product where name = 'Tidewash' and practice_id = ${world.practiceId} order by version desc limit 1`;
    expect(await give()).toMatchObject({ error: { rule: 'takeHomeMissing', data: { missing: 'careStopped' } } });
    const [product] = await world.db.owner<{ productId: string }[]>`select product_id from care_product where name = 'Tidewash' limit 1`;
    const at = { visitId, version: await world.version(visitId) };
    await world.must('prescribeCare', { ...at, productId: product?.productId ?? '', chosenFor: 'keepsOwn', overrideNote: 'has three bottles of it at home' });
    expect(await give()).toMatchObject({ ok: true });
  });
  it('on a telephone only where the practice has an address that telephones trust; the token is told once, behind the hash', async () => {
    expect(await give({ way: 'link' })).toMatchObject({ error: { rule: 'noPublicAddress' } });
    const token = await homeToken(world, visitId);
    expect(token.length).toBeGreaterThan(40);
    const [row] = await world.db.owner<{ n: number }[]>`select count(*)::int as n from wearer_link where token_hash = ${token}`;
    expect(row?.n).toBe(0);
    const read = await world.do('readHomePage', { visitId });
    expect(read).toMatchObject({ ok: true, value: { address: 'https://lenses.example', links: [{}] } });
    expect(JSON.stringify(read)).not.toContain(token);
  });
  it('refuses a language and a way that are none', async () => {
    for (const bad of [{ language: 'english' }, { language: '' }, { way: 'fax' }, { visitId: 'x' }])
      expect(await give(bad)).toMatchObject({ error: { kind: 'invalid' } });
  });
});

describe('a language is checked by a speaker', () => {
  const check = (input: object = {}) =>
    world.do('checkLanguage', { language: 'es', words: 'abcd1234', speaker: 'Ines Ferro', checkedOn: '24 Nov 2026', ...input }, world.callers.admin);
  it('who and when, appended; the newest holds', async () => {
    expect(await check()).toMatchObject({ ok: true });
    expect(await check({ words: 'ffff0000' })).toMatchObject({ ok: true });
    const read = await world.do('readHomePage', { visitId });
    expect(read).toMatchObject({ ok: true, value: { checks: [{ language: 'es', words: 'ffff0000', speaker: 'Ines Ferro', checkedOn: '2026-11-24' }] } });
  });
  it('not ahead of time, and not by nobody', async () => {
    expect(await check({ checkedOn: '25 Nov 2026' })).toMatchObject({ error: { fields: [{ path: ['checkedOn'], code: 'checkedAhead' }] } });
    expect(await check({ speaker: ' ' })).toMatchObject({ error: { kind: 'invalid' } });
    expect(await check({ checkedOn: '' })).toMatchObject({ error: { kind: 'invalid' } });
  });
});
