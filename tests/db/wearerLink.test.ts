import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { LINK_PURPOSES } from '../../src/core';
import { SERVICES, type ServiceName } from '../../src/services';
import type { Caller, LinkCaller } from '../../src/services/define';
import { perform } from '../../src/services/perform';
import { resumeLink } from '../../src/services/session/link';
import { enterHome } from '../../src/services/takeHome/enter';
import { fillDrawer } from '../support/drawer';
import { homeToken, openWorld, taughtAndGiven, type World } from './support';

/** A caller is one of the staff, or a wearer who holds a link to one thing. */
let world: World;
let visitId = '';
let token = '';
let linkId = '';
let expiresAt = '';
const ask = (name: ServiceName, caller: Caller, input: object) => perform(SERVICES[name] as never, world.deps, caller, input);
const link = async (): Promise<LinkCaller> => {
  const caller = await resumeLink(world.deps, token);
  if (!caller.ok) throw new Error('no link');
  return caller.value;
};

const identity = async (of: string): Promise<string> => await resumeLink(world.deps, of).then((c) => (c.ok ? c.value.linkId : ''));

beforeAll(async () => {
  world = await openWorld();
  await fillDrawer(world.db.owner, 50);
  visitId = await taughtAndGiven(world);
  token = await homeToken(world, visitId);
  linkId = await identity(token);
  const [row] = await world.db.owner<{ at: Date }[]>`select expires_at as at from wearer_link where id = ${linkId}`;
  expiresAt = new Date(row?.at ?? 0).toISOString();
}, 180_000);
afterAll(() => world.db.close());

describe('a wearer’s link', () => {
  it('opens its one page, as it was given: lenses, solution, and whom to call', async () => {
    const read = await ask('readTakeHome', await link(), { visitId });
    expect(read).toMatchObject({
      ok: true,
      value: { sheet: { number: 1, language: 'en', way: 'link', page: { lenses: { right: { sphereD: -2 }, left: null }, product: { name: 'Tidewash' } } } },
    });
    expect((read as { value: { sheet: { page: { emergencyTelephone: string } } } }).value.sheet.page.emergencyTelephone).toMatch(/\d/);
  });
  it('opens nothing else: no other use case, whatever it asks', async () => {
    const caller = await link();
    const names = Object.keys(SERVICES) as ServiceName[];
    const open = names.filter((name) => SERVICES[name].links?.includes(caller.purpose));
    expect(open).toEqual(['readTakeHome']);
    for (const name of names) {
      if (open.includes(name)) continue;
      expect(await ask(name, caller, { visitId }), name).toMatchObject({ ok: false, error: { kind: 'forbidden' } });
    }
    for (const purpose of LINK_PURPOSES) {
      if (purpose !== 'takeHome') expect(await ask('readTakeHome', { ...caller, purpose }, { visitId })).toMatchObject({ error: { kind: 'forbidden' } });
    }
  });
  it('opens no other visit, not even of the same wearer, and none of another practice', async () => {
    const other = String((await world.must('openVisit', { wearerId: await world.wearerId(2), kind: 'longFollowUp' })).visitId);
    expect(await ask('readTakeHome', await link(), { visitId: other })).toMatchObject({ error: { kind: 'notFound' } });
    const elsewhere = { ...(await link()), practiceId: crypto.randomUUID() };
    await expect(ask('readTakeHome', elsewhere, { visitId })).rejects.toThrow('practice');
    // The staff may look at both.
    expect(await ask('readTakeHome', world.callers.coordinator, { visitId })).toMatchObject({ ok: true });
    expect(await ask('readTakeHome', world.callers.coordinator, { visitId: other })).toMatchObject({ error: { kind: 'notFound' } });
  });
  it('is audited as the link, not as a person', async () => {
    await ask('readTakeHome', await link(), { visitId });
    const [line] = await world.db.owner<{ personId: string | null; linkId: string; action: string }[]>`
      select person_id, link_id, action from audit_log where link_id is not null order by at desc limit 1`;
    expect(line).toEqual({ personId: null, linkId, action: 'readTakeHome' });
    await expect(
      world.db.owner`insert into audit_log (id, practice_id, at, person_id, link_id, action)
        values (gen_random_uuid(), ${world.practiceId}, now(), ${world.asha.personId}, ${linkId}, 'x')`,
    ).rejects.toThrow(/check constraint/);
  });
  it('its token is kept as a hash, and a wrong one is nobody', async () => {
    const [row] = await world.db.owner<{ n: number }[]>`select count(*)::int as n from wearer_link where token_hash = ${token}`;
    expect(row?.n).toBe(0);
    for (const wrong of [undefined, '', `${token}x`, linkId]) expect(await resumeLink(world.deps, wrong)).toMatchObject({ error: { kind: 'signedOut' } });
  });
  it('ended, it opens nothing; and it ends by itself', async () => {
    const second = await homeToken(world, visitId);
    const caller = await link();
    await world.must('endWearerLink', { linkId }, world.callers.technician);
    expect(await resumeLink(world.deps, token)).toMatchObject({ error: { kind: 'signedOut' } });
    expect(await enterHome(world.deps, token, 'a')).toMatchObject({ error: { fields: [{ code: 'linkUnknown' }] } });
    expect(await enterHome(world.deps, second, 'a')).toMatchObject({ ok: true });
    expect(await world.do('endWearerLink', { linkId })).toMatchObject({ error: { kind: 'notFound' } });
    expect(caller.linkId).toBe(linkId);
    expect((await resumeLink(world.deps, second)).ok).toBe(true);
    world.move((Date.parse(expiresAt) - Date.parse('2026-11-24T00:00:00Z')) / 1000 + 86_400);
    expect(await resumeLink(world.deps, second)).toMatchObject({ error: { kind: 'signedOut' } });
  });
});
