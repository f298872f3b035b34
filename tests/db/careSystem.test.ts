import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openWorld, SENTENCES, signPair, spec, type World } from './support';

let world: World;
let products: Record<string, string> = {};
const base = { productId: null, version: 0, maker: 'Foreshore Vision', contents: '1', lastsDays: 30, price: 10, includesCase: true, ended: false };
const figures = { soakMinutes: 360, storeDays: 7, discardDays: 60 };
beforeAll(async () => {
  world = await openWorld();
  const rows = await world.db.owner<{ name: string; productId: string }[]>`select name, product_id as "productId" from care_product`;
  products = Object.fromEntries(rows.map((r) => [r.name, r.productId]));
}, 60_000);
afterAll(() => world.db.close());

const at = async (visitId: string) => ({ visitId, version: await world.version(visitId) });
const save = async (product: object): Promise<string> => (await world.must('saveCareProduct', { ...base, ...product }, world.callers.admin))['productId'] ?? '';
const prescribe = async (visitId: string, change: object, caller = world.asha) =>
  world.do('prescribeCare', { ...(await at(visitId)), chosenFor: 'first', ...change }, caller);

describe('a care system is prescribed', () => {
  it('with its reason, by a prescriber; the newest holds, also at the next visit', async () => {
    const visitId = await world.visit(3, { right: '-2.00', left: '-2.00' });
    await signPair(world, visitId);
    expect(await prescribe(visitId, { productId: products['Tidewash'] }, world.callers.technician)).toMatchObject({ error: { kind: 'forbidden' } });
    await world.must('prescribeCare', { ...(await at(visitId)), productId: products['Tidewash'], chosenFor: 'first' });
    world.move(60);
    expect(await prescribe(visitId, { productId: products['Samphire Overnight'], chosenFor: 'other' })).toMatchObject({
      error: { fields: [{ path: ['note'], code: 'careReasonRequired' }] },
    });
    await world.must('prescribeCare', { ...(await at(visitId)), productId: products['Samphire Overnight'], chosenFor: 'sensitivity' });
    const kept = (await world.record(visitId)).careSystems.flatMap((c) => (c.current ? [c.current] : []));
    expect(kept.map((c) => [c.productName, c.chosenFor])).toEqual([
      ['Tidewash', 'first'],
      ['Samphire Overnight', 'sensitivity'],
    ]);
    await world.must('closeVisit', await at(visitId));
    const { wearerId } = (await world.record(visitId)).visit;
    const { visitId: next = '' } = await world.must('openVisit', { wearerId, kind: 'longFollowUp' });
    expect((await world.record(next)).careSystems.map((c) => c.current?.productName)).toEqual(['Samphire Overnight']);
    await expect(world.db.app`update care_system set note = 'x'`).rejects.toThrow(/permission denied/);
  });
  it('what ruins or disinfects nothing cannot be overridden; what is not known is entered first', async () => {
    const visitId = await world.visit(4, { right: '-2.00', left: '-2.25' });
    await signPair(world, visitId);
    const rigid = await save({ system: 'rigid', name: 'Breakwater' });
    const saline = await save({ system: 'saline', name: 'Sea Salt' });
    const unknown = await save({ system: 'multipurpose', name: 'Corner Shop Clear', ownLabel: true });
    const overrideNote = 'all the same';
    expect(await prescribe(visitId, { productId: rigid, overrideNote })).toMatchObject({ error: { rule: 'rigidOnSoft', data: { name: 'Breakwater' } } });
    expect(await prescribe(visitId, { productId: saline, overrideNote })).toMatchObject({ error: { rule: 'disinfectsNothing' } });
    expect(await prescribe(visitId, { productId: unknown, overrideNote })).toMatchObject({ error: { rule: 'figuresUnknown' } });
    await save({ ...{ productId: unknown, version: 1, system: 'multipurpose', name: 'Corner Shop Clear', ownLabel: true }, ...figures });
    expect(await prescribe(visitId, { productId: unknown })).toMatchObject({ ok: true });
  });
  it('a pair to be avoided, a peroxide without its case and a product no longer sold want a sentence, which is kept', async () => {
    const visitId = await world.visit(5, { right: '-2.00', left: '-2.25' });
    await signPair(world, visitId);
    const bare = await save({ system: 'peroxide', name: 'Bare Barrel', includesCase: false, ...figures });
    expect(await prescribe(visitId, { productId: bare })).toMatchObject({ error: { fields: [{ path: ['overrideNote'], code: 'careOverrideRequired' }] } });
    await world.must('prescribeCare', { ...(await at(visitId)), productId: bare, chosenFor: 'first', overrideNote: 'case given from the drawer' });
    const material = (await world.record(visitId)).ofLenses[0]?.material ?? '';
    await world.must('recordCarePair', { productId: products['Tidewash'], material, effect: 'avoid', source: 'its maker' }, world.callers.admin);
    expect(await prescribe(visitId, { productId: products['Tidewash'] })).toMatchObject({ ok: false });
    const rows = await world.db.owner`select overridden, override_note from care_system where visit_id = ${visitId}`;
    expect(rows).toMatchObject([{ overridden: ['noOwnCase'], overrideNote: 'case given from the drawer' }]);
    await world.must('recordCarePair', { productId: products['Tidewash'], material, effect: 'none', source: 'its maker, newer' }, world.callers.admin);
    await save({ productId: bare, version: 1, system: 'peroxide', name: 'Bare Barrel', includesCase: true, ended: true, ...figures });
    expect(await prescribe(visitId, { productId: bare })).toMatchObject({ error: { fields: [{ code: 'careOverrideRequired' }] } });
  });
  it('single-use lenses need none, and figures that make no sense are refused at their field', async () => {
    const visitId = await world.visit(6, { right: '-2.00', left: '-2.25' });
    await world.must('sign', {
      ...(await at(visitId)),
      password: 'plain-sight',
      right: { mode: 'final', lens: await spec(world, 'knot-1-day', -2, 0, 180, 8.4, 14), triedLensOnEyeId: null },
      left: null,
      expiresOn: '2027-11-24',
      waitNote: 'known wearer',
      daysPerWeek: 7,
      overrides: SENTENCES,
    });
    expect(await prescribe(visitId, { productId: products['Tidewash'] })).toMatchObject({ error: { rule: 'singleUseNeedsNone' } });
    const bad = { ...base, system: 'saline', name: 'X', soakMinutes: 10, catalystDays: 5 };
    expect(await world.do('saveCareProduct', bad, world.callers.admin)).toMatchObject({
      error: {
        fields: [
          { path: ['catalystDays'], code: 'catalystOfPeroxide' },
          { path: ['soakMinutes'], code: 'disinfectsNothing' },
        ],
      },
    });
  });
  it('meets the lenses at the telephone too: a pair that irritates, and what the wearer said they are kept in', async () => {
    const visitId = await world.visit(7, { right: '-2.00', left: '-2.25' });
    await signPair(world, visitId);
    const { wearerId } = (await world.record(visitId)).visit;
    const care = async (): Promise<unknown> =>
      ((await world.must('readReorder', { wearerId }, world.callers.coordinator)) as unknown as { care: unknown }).care;
    expect(await care()).toBeNull();
    await world.must('prescribeCare', { ...(await at(visitId)), productId: products['Tidewash'], chosenFor: 'first' });
    expect(await care()).toBeNull();
    const material = (await world.record(visitId)).ofLenses[0]?.material ?? '';
    await world.must('recordCarePair', { productId: products['Tidewash'], material, effect: 'irritates', source: 'its maker' }, world.callers.admin);
    expect(await care()).toMatchObject({ name: 'Tidewash', findings: [{ fault: 'pairIrritates', gravity: 'watch' }] });
    world.move(60);
    await world.must('answerAftercare', { ...(await at(visitId)), answers: [{ question: 'solutionUsed', eye: null, said: ['water'] }] });
    expect(await care()).toMatchObject({ name: null, other: 'water', findings: [{ fault: 'disinfectsNothing' }] });
    await world.must('recordCarePair', { productId: products['Tidewash'], material, effect: 'none', source: 'its maker' }, world.callers.admin);
  });
});
