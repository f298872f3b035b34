import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openWorld, SENTENCES, signPair, spec, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

const at = async (visitId: string) => ({ visitId, version: await world.version(visitId) });
async function setProfile(value: 'us' | 'generic'): Promise<void> {
  const [last] = await world.db.owner<{ id: string }[]>`select id from practice_setting where key = 'ruleProfile' order by set_at desc limit 1`;
  await world.must('changeSetting', { key: 'ruleProfile', value, lastChangeId: last?.id ?? null }, world.callers.admin);
  world.move(1);
}

describe('how long a prescription runs', () => {
  const sign = async (visitId: string, change: object) =>
    world.do('sign', {
      ...(await at(visitId)),
      password: 'plain-sight',
      right: { mode: 'final', lens: await spec(world, 'turnstone-30', -2, 0, 180, 8.4, 14.2), triedLensOnEyeId: null },
      left: null,
      waitNote: 'known wearer',
      daysPerWeek: 7,
      overrides: SENTENCES,
      ...change,
    });
  it('by the US rules a year at least, unless a medical reason is kept; by the generic ones as the practice says', async () => {
    const visitId = await world.visit(3, { right: '-2.00', left: '-2.00' });
    await setProfile('us');
    expect(await sign(visitId, { expiresOn: '23 Nov 2027' })).toMatchObject({
      error: { fields: [{ path: ['expiryReason'], code: 'expiryReasonRequired', data: { day: '2027-11-24' } }] },
    });
    expect(await sign(visitId, { expiresOn: '23 May 2027', expiryReason: 'vessels grow into the cornea' })).toMatchObject({ ok: true });
    expect((await world.record(visitId)).prescriptions[0]).toMatchObject({ expiresOn: '2027-05-23', expiryReason: 'vessels grow into the cornea' });
    // A year to the day needs none, and keeps none.
    expect(await sign(visitId, { expiresOn: '24 Nov 2027', expiryReason: 'left in the field' })).toMatchObject({ ok: true });
    expect((await world.record(visitId)).prescriptions[0]).toMatchObject({ expiresOn: '2027-11-24', expiryReason: null });
    await setProfile('generic');
    expect(await sign(visitId, { expiresOn: '23 May 2027' })).toMatchObject({ ok: true });
  });
});

describe('the wearer’s copy', () => {
  it('is kept with how and by whom, beside a prescription that does not change; said again, the newest holds', async () => {
    const visitId = await world.visit(4, { right: '-2.00', left: '-2.25' });
    const prescriptionId = await signPair(world, visitId);
    expect((await world.record(visitId)).prescriptions[0]?.copy).toBeNull();
    await world.must('recordCopy', { ...(await at(visitId)), prescriptionId, how: 'refused' }, world.callers.coordinator);
    world.move(60);
    await world.must('recordCopy', { ...(await at(visitId)), prescriptionId, how: 'signed' });
    expect((await world.record(visitId)).prescriptions[0]?.copy).toMatchObject({ how: 'signed', givenByName: 'Asha Penhallow' });
    const rows = await world.db.owner`select how from prescription_copy where prescription_id = ${prescriptionId} order by sequence`;
    expect(rows.map((r) => (r as { how: string }).how)).toEqual(['refused', 'signed']);
    await expect(world.db.app`update prescription_copy set how = 'digital'`).rejects.toThrow(/permission denied/);
  });
  it('another wearer’s prescription is not found', async () => {
    const visitId = await world.visit(5, { right: '-1.00', left: null });
    const other = await world.visit(6, { right: '-2.00', left: '-2.25' });
    const prescriptionId = await signPair(world, other);
    expect(await world.do('recordCopy', { ...(await at(visitId)), prescriptionId, how: 'signed' })).toMatchObject({ error: { kind: 'notFound' } });
  });
});
