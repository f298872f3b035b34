import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openWorld, signPair, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

const NEW = { name: 'Saltmarsh Eyes', town: 'Fleetholm Quay', address: '3 Net Loft Lane', telephone: '555 0101', emergencyTelephone: '555 0198' };
const change = (more: object) => world.do('changePractice', { version: 1, ...NEW, ...more }, world.callers.admin);

describe('what a practice is called and where it is reached', () => {
  it.each([
    ['name', 'nameRequired'],
    ['address', 'addressRequired'],
    ['telephone', 'telephoneRequired'],
    ['emergencyTelephone', 'emergencyRequired'],
  ])('%s may not be empty', async (field, code) => {
    expect(await change({ [field]: '  ' })).toMatchObject({ error: { fields: [{ path: [field], code }] } });
  });
  it('is changed by an admin, what it was is kept, and what was signed keeps what it said', async () => {
    const visitId = await world.visit(1, { right: '-2.00', left: '-2.25' });
    await signPair(world, visitId);
    expect(await change({})).toMatchObject({ ok: true });
    expect((await world.record(visitId)).prescriptions[0]?.prescriber).toMatchObject({
      practice: 'Saltmarsh Eye Care',
      address: '12 Ropewalk, Fleetholm Quay',
    });
    const { session } = (await world.must('readRooms', {})) as unknown as { readonly session: { readonly practice: object } };
    expect(session.practice).toMatchObject(NEW);
    expect(await world.db.owner`select version, was ->> 'address' as address from practice_change`).toEqual([
      { version: 1, address: '12 Ropewalk, Fleetholm Quay' },
    ]);
  });
  it('an older page is told', async () => {
    expect(await change({ name: 'Another' })).toMatchObject({ error: { kind: 'conflict', what: 'practice' } });
  });
});
