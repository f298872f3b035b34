import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openWorld, spec, type World } from './support';

let world: World;
const owner = () => world.db.owner;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

const CODE = 'plover-30-toric';
const lens = () => spec(world, CODE, -6, -0.75, 90);
const receive = async (more: object = {}) =>
  world.do('receiveTrials', { lens: await lens(), lot: 'Q1', expiresOn: '1 Mar 2028', count: 4, despiteReason: '', ...more }, world.callers.coordinator);
interface Stock {
  readonly id: string;
  readonly lot: string;
  readonly expiresOn: string;
  readonly count: number;
}
const stock = () => owner()<Stock[]>`
  select s.id, s.lot, s.expires_on, s.count from trial_stock s join lens l on l.id = s.lens_id join lens_family_version f on f.id = l.family_version_id
  where f.code = ${CODE} and (l.sphere_d, l.cylinder_d, l.axis_deg) = (-6, -0.75, 90) order by s.lot, s.expires_on`;
const lot = async (name: string): Promise<Stock> => {
  const found = (await stock()).find((s) => s.lot === name);
  if (!found) throw new Error(name);
  return found;
};
/** Every lot counts what its movements add up to. */
const adrift = () => owner()`
  select s.id from trial_stock s left join trial_movement m on m.trial_stock_id = s.id group by s.id, s.count having s.count <> coalesce(sum(m.change), 0)`;

describe('trial lenses that come', () => {
  it('are in the drawer, and a second parcel of the same lot makes it larger', async () => {
    expect(await receive()).toMatchObject({ ok: true });
    expect(await receive({ count: 2 })).toMatchObject({ ok: true });
    expect(await stock()).toMatchObject([{ lot: 'Q1', expiresOn: '2028-03-01', count: 6 }]);
    const moved = await world.must('readTrialMovements', { trialStockId: (await lot('Q1')).id }, world.callers.admin);
    expect(moved).toMatchObject([
      { kind: 'received', change: 2, movedByName: 'Renny Okoro-Vale' },
      { kind: 'received', change: 4 },
    ]);
  });
  it.each([
    [{ expiresOn: '23 Nov 2026' }, ['expiresOn'], 'trialExpired'],
    [{ expiresOn: '' }, ['expiresOn'], 'expiryRequired'],
    [{ lot: ' ' }, ['lot'], 'lotRequired'],
    [{ count: 0 }, ['count'], 'trialCount'],
    [{ count: 501 }, ['count'], 'trialCount'],
    [{ count: 1.5 }, ['count'], 'wholeNumber'],
  ])('%o is said at its field', async (more, path, code) => {
    const before = await stock();
    expect(await receive(more)).toMatchObject({ error: { kind: 'invalid', fields: [{ path, code }] } });
    expect(await stock()).toEqual(before);
  });
  it('the last day itself is still a day of use', async () => {
    expect(await receive({ lot: 'Q0', expiresOn: '24 Nov 2026' })).toMatchObject({ ok: true });
  });
  it('a power that the family is not made in is refused', async () => {
    expect(await receive({ lens: { ...(await lens()), cylinder: -7 } })).toMatchObject({ error: { fields: [{ path: ['lens'], code: 'lensNotMade' }] } });
  });
  it('a lot with another day than before asks which was misread; a sentence keeps both', async () => {
    const again = { expiresOn: '1 Mar 2029', lot: 'Q1' };
    expect(await receive(again)).toMatchObject({ error: { fields: [{ path: ['expiresOn'], code: 'lotOtherDay', data: { lot: 'Q1', other: '2028-03-01' } }] } });
    expect(await receive({ ...again, despiteReason: 'both read twice' })).toMatchObject({ ok: true });
    expect((await stock()).filter((s) => s.lot === 'Q1')).toHaveLength(2);
  });
  it('lenses of a family that is no longer ordered may still come', async () => {
    await world.must('endFamily', { code: CODE, lastOrderOn: '2026-11-24', replacedBy: null, reason: 'withdrawn' }, world.callers.admin);
    world.move(2 * 86_400);
    expect(await receive({ lot: 'Q9' })).toMatchObject({ ok: true });
    world.move(-2 * 86_400);
  });
});

describe('trial lenses that leave, and are counted', () => {
  it('no more are thrown away than are there', async () => {
    const { id, count } = await lot('Q9');
    const discard = (n: number) => world.do('discardTrials', { trialStockId: id, count: n, why: 'damaged' }, world.callers.technician);
    expect(await discard(count + 1)).toMatchObject({ error: { fields: [{ path: ['count'], code: 'trialFewer', data: { left: count } }] } });
    expect(await discard(1)).toMatchObject({ ok: true });
    expect((await lot('Q9')).count).toBe(count - 1);
  });
  it('a count by hand puts it right, unless somebody moved a lens meanwhile', async () => {
    const { id, count } = await lot('Q9');
    expect(await world.do('countTrials', { trialStockId: id, seen: count + 1, counted: 9 })).toMatchObject({ error: { kind: 'conflict' } });
    expect(await world.do('countTrials', { trialStockId: id, seen: count, counted: 9 })).toMatchObject({ ok: true });
    expect((await lot('Q9')).count).toBe(9);
    expect(await world.do('countTrials', { trialStockId: id, seen: 9, counted: 9 })).toMatchObject({ ok: true });
    const moved = await world.must('readTrialMovements', { trialStockId: id });
    expect(moved).toMatchObject([{ kind: 'counted', change: 9 - count }, { kind: 'thrownAway', note: 'damaged' }, { kind: 'received' }]);
  });
  it('nobody writes a count but by a movement, neither the application nor its owner', async () => {
    const { id } = await lot('Q9');
    for (const sql of [world.db.app, owner()]) {
      await expect(sql`update trial_stock set count = 99 where id = ${id}`).rejects.toThrow(/counted by its movements/);
      await expect(
        sql`insert into trial_stock (id, practice_id, lens_id, lot, expires_on, count)
          select gen_random_uuid(), practice_id, lens_id, 'forged', expires_on, 3 from trial_stock where id = ${id}`,
      ).rejects.toThrow(/counted by its movements/);
    }
    await expect(world.db.app`update trial_movement set change = 5`).rejects.toThrow(/permission denied/);
    await expect(world.db.app`delete from trial_movement`).rejects.toThrow(/permission denied/);
  });
});

describe('a lens in the hand that nobody had counted', () => {
  const put = async (inHand: object | null, sphere = -7.5) => {
    const visitId = await world.visit(1);
    const right = { ...(await spec(world, 'turnstone-30', sphere, 0, 180, 8.4, 14.2)), inHand };
    return { visitId, done: await world.do('putOnTrials', { visitId, version: await world.version(visitId), right, left: null }) };
  };
  it('goes on the eye with what its blister says, and through the drawer in one', async () => {
    expect((await put(null)).done).toMatchObject({ error: { fields: [{ path: ['right'], code: 'noTrialInDrawer' }] } });
    const { visitId, done } = await put({ lot: 'H7', expiresOn: '1 Feb 2028' });
    expect(done).toMatchObject({ ok: true });
    expect((await world.record(visitId)).facts.onEye.at(-1)?.current).toMatchObject({ lot: 'H7', expiresOn: '2028-02-01', source: 'trial' });
    const moved = await owner()<{ kind: string; change: number }[]>`
      select m.kind, m.change from trial_movement m join trial_stock s on s.id = m.trial_stock_id where s.lot = 'H7' order by m.sequence`;
    expect(moved).toEqual([
      { kind: 'received', change: 1 },
      { kind: 'putOn', change: -1 },
    ]);
  });
  it('not when it has expired, and not without its lot', async () => {
    expect((await put({ lot: 'H8', expiresOn: '1 Feb 2025' })).done).toMatchObject({
      error: { fields: [{ path: ['right', 'inHand', 'expiresOn'], code: 'trialExpired' }] },
    });
    expect((await put({ lot: '', expiresOn: '1 Feb 2028' })).done).toMatchObject({
      error: { fields: [{ path: ['right', 'inHand', 'lot'], code: 'lotRequired' }] },
    });
  });
});

describe('whatever is done, the count is what the movements add up to', () => {
  it('and never less than nothing', async () => {
    const { id } = await lot('Q9');
    const step = fc.oneof(
      fc.record({ do: fc.constant('discardTrials' as const), n: fc.integer({ min: 1, max: 12 }) }),
      fc.record({ do: fc.constant('countTrials' as const), n: fc.integer({ min: 0, max: 12 }) }),
      fc.record({ do: fc.constant('receiveTrials' as const), n: fc.integer({ min: 1, max: 12 }) }),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 6 }), async (steps) => {
        for (const { do: what, n } of steps) {
          const before = (await lot('Q9')).count;
          if (what === 'discardTrials') {
            const done = await world.do(what, { trialStockId: id, count: n, why: 'opened' });
            expect(done.ok).toBe(n <= before);
          } else if (what === 'countTrials') await world.must(what, { trialStockId: id, seen: before, counted: n });
          else expect((await receive({ lot: 'Q9', count: n })).ok).toBe(true);
        }
        expect((await lot('Q9')).count).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 12 },
    );
    expect(await adrift()).toEqual([]);
  });
  it('two who throw the last ones away at one moment: one of them is told', async () => {
    const { id, count } = await lot('Q9');
    await world.must('countTrials', { trialStockId: id, seen: count, counted: 3 });
    const done = await Promise.all([0, 1].map(() => world.do('discardTrials', { trialStockId: id, count: 2, why: 'expired' })));
    expect(done.filter((d) => d.ok)).toHaveLength(1);
    expect(await adrift()).toEqual([]);
  });
});
