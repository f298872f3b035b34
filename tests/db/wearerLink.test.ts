import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { LINK_PURPOSES } from '../../src/core';
import { SERVICES, type ServiceName } from '../../src/services';
import type { Caller, LinkCaller } from '../../src/services/define';
import { perform } from '../../src/services/perform';
import { resumeLink } from '../../src/services/session/link';
import { openWorld, SENTENCES, spec, type World } from './support';

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

beforeAll(async () => {
  world = await openWorld();
  visitId = await world.visit(1, { right: '-3.25 -1.75 x 20', left: null });
  const lens = await spec(world, 'plover-30-toric', -3, -1.75, 20);
  const signing = { password: 'plain-sight', expiresOn: '2027-11-20', daysPerWeek: 7, waitNote: 'lives on an island', overrides: SENTENCES };
  await world.must('sign', { visitId, version: 2, ...signing, right: { mode: 'final', lens, triedLensOnEyeId: null }, left: null });
  const opened = await world.must('openWearerLink', { purpose: 'takeHome', subjectId: visitId }, world.callers.technician);
  token = String(opened.token);
  linkId = String(opened.linkId);
  expiresAt = String(opened.expiresAt);
}, 180_000);
afterAll(() => world.db.close());

describe('a wearer’s link', () => {
  it('opens its one paper: what is prescribed, and whom to call', async () => {
    const read = await ask('readTakeHome', await link(), { visitId });
    expect(read).toMatchObject({
      ok: true,
      value: { language: 'en', prescription: { eyes: [{ eye: 'right', lens: { sphereD: -3, cylinderD: -1.75, axisDeg: 20 } }] } },
    });
    const text = JSON.stringify(read);
    expect((read as { value: { emergencyTelephone: string } }).value.emergencyTelephone).toMatch(/\d/);
    // Why the order did not wait, and what was overridden, is nothing for a paper that others may see.
    for (const secret of ['island', ...SENTENCES.map((s) => s.reason)]) expect(text).not.toContain(secret);
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
    expect(await ask('readTakeHome', world.callers.coordinator, { visitId: other })).toMatchObject({ ok: true, value: { prescription: null } });
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
  it('names a lesson or a visit that is there, or is not opened', async () => {
    expect(await world.do('openWearerLink', { purpose: 'lesson', subjectId: visitId })).toMatchObject({ error: { kind: 'notFound', what: 'lesson' } });
    expect(await world.do('openWearerLink', { purpose: 'all', subjectId: visitId })).toMatchObject({ error: { kind: 'invalid' } });
  });
  it('ended, it opens nothing; and it ends by itself', async () => {
    const second = String((await world.must('openWearerLink', { purpose: 'takeHome', subjectId: visitId })).token);
    const caller = await link();
    await world.must('endWearerLink', { linkId }, world.callers.technician);
    expect(await resumeLink(world.deps, token)).toMatchObject({ error: { kind: 'signedOut' } });
    expect(await world.do('endWearerLink', { linkId })).toMatchObject({ error: { kind: 'notFound' } });
    expect(caller.linkId).toBe(linkId);
    expect((await resumeLink(world.deps, second)).ok).toBe(true);
    world.move((Date.parse(expiresAt) - Date.parse('2026-11-24T00:00:00Z')) / 1000 + 86_400);
    expect(await resumeLink(world.deps, second)).toMatchObject({ error: { kind: 'signedOut' } });
  });
});
