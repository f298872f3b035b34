import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { safeError } from '../../src/server/safeError';
import { signIn, signOut } from '../../src/services/session/access';
import { openWorld, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

describe('the log', () => {
  it('keeps of a database error what kind it is, and nothing of any row', async () => {
    const wearer = await world.db.owner<{ name: string }[]>`select name from wearer_identity limit 1`;
    const name = wearer[0]?.name ?? '';
    const errors = await Promise.all([
      world.db
        .owner`insert into wearer_identity (wearer_id, practice_id, name, birth_date) select wearer_id, practice_id, name, birth_date from wearer_identity limit 1`.catch(
        (cause: unknown) => cause,
      ),
      world.db.owner.unsafe(`select '${name}'::uuid`).catch((cause: unknown) => cause),
    ]);
    for (const error of errors) {
      expect(error).toBeInstanceOf(Error);
      const kept = safeError(error);
      expect(kept).toMatchObject({ message: 'the database refused' });
      expect(kept.code).toMatch(/^\w{5}$/);
      expect(JSON.stringify(kept)).not.toContain(name);
      expect(JSON.stringify(kept)).not.toMatch(/\d{4}-\d\d-\d\d/);
    }
    expect(JSON.stringify(errors.map((e) => String(e)))).toContain(name);
    expect(safeError(new Error('not reached'))).toMatchObject({ type: 'Error', message: 'not reached' });
    expect(safeError('thrown text')).toEqual({ type: 'string', message: 'no error was thrown' });
  });
  it('whoever tries what they may not, and whoever signs out, is on record', async () => {
    const lines = async (action: string) =>
      world.db.owner<{ detail: object; personId: string }[]>`select detail, person_id from audit_log where action = ${action} order by at desc`;
    await world.do('addRoom', { name: 'Attic' }, world.callers.coordinator);
    expect((await lines('addRoom'))[0]).toEqual({ detail: { refused: 'forbidden' }, personId: world.callers.coordinator.personId });
    const done = await signIn(world.deps, { account: 'renny', password: 'plain-sight' }, { address: 'here' });
    if (!done.ok) throw new Error('sign-in');
    await signOut(world.deps, done.value.token);
    // A session that has ended is not ended twice.
    await signOut(world.deps, done.value.token);
    expect(await lines('signOut')).toEqual([{ detail: {}, personId: world.callers.coordinator.personId }]);
    await world.must('searchWearers', { search: 'quill' });
    expect((await lines('searchWearers'))[0]).toMatchObject({ personId: world.asha.personId });
  });
});
