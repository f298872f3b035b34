import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openWorld, signPair, type World } from './support';

let world: World;
const owner = () => world.db.owner;
const merle = () => world.callers.admin;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

/** A wearer with a signed pair and a closed visit. */
async function withPast(record: number): Promise<string> {
  const visitId = await world.visit(record, { right: '-2.00', left: '-2.25' });
  await signPair(world, visitId);
  await world.must('closeVisit', { visitId, version: await world.version(visitId) });
  return world.wearerId(record);
}
async function pair(keep: number, other: number) {
  const { keep: a, other: b } = (await world.must('compareWearers', { keep, other }, merle())) as unknown as Record<
    'keep' | 'other',
    { id: string; version: number }
  >;
  const ids = { keepId: a.id, keepVersion: a.version, otherId: b.id, otherVersion: b.version };
  return { ...ids, reason: 'the same person, once under her maiden name', birthDatesReason: 'one was made up at the desk' };
}
const merge = async (keep: number, other: number): Promise<string> => String((await world.must('mergeWearers', await pair(keep, other), merle())).mergeId);
const undo = (mergeId: string) => world.do('undoMerge', { mergeId, reason: 'they are two after all' }, merle());
/** How many rows of each table belong to a wearer. */
async function owned(wearerId: string): Promise<Record<string, number>> {
  const tables = await owner()<{ tableName: string }[]>`select table_name from wearer_owned order by 1`;
  const counted = await Promise.all(
    tables.map(
      async ({ tableName }) =>
        [tableName, Number((await owner().unsafe(`select count(*) as n from ${tableName} where wearer_id = $1`, [wearerId]))[0]?.['n'])] as const,
    ),
  );
  return Object.fromEntries(counted);
}

describe('tables whose rows belong to a wearer', () => {
  it('can all be moved, and none takes a row of a merged record', async () => {
    const tables = await owner()<{ tableName: string; hasId: boolean; guarded: boolean }[]>`
      select o.table_name, exists (select 1 from information_schema.columns c where c.table_name = o.table_name and c.column_name = 'id' and c.data_type = 'uuid') as has_id,
        exists (select 1 from pg_trigger t where t.tgrelid = o.table_name::regclass and t.tgname = 'not_of_merged') as guarded
      from wearer_owned o`;
    expect(tables.length).toBeGreaterThan(10);
    expect(tables.filter((t) => !t.hasId || !t.guarded)).toEqual([]);
  });
});

describe('two records of one person', () => {
  it('are one, with the visits, prescriptions and tasks of both; taken apart they are as they were', async () => {
    const [keep, other] = [await withPast(1), await withPast(2)];
    await world.must('addTask', { kind: 'call', text: 'about the case', wearerId: other, dueOn: '2026-11-25', assignedTo: null });
    const [before, beforeOther] = [await owned(keep), await owned(other)];
    const mergeId = await merge(1, 2);
    const both = await owned(keep);
    for (const [table, n] of Object.entries(both)) expect(n, table).toBe((before[table] ?? 0) + (beforeOther[table] ?? 0));
    expect(Object.values(await owned(other)).every((n) => n === 0)).toBe(true);
    expect(await undo(mergeId)).toMatchObject({ ok: true });
    expect(await owned(keep)).toEqual(before);
    expect(await owned(other)).toEqual(beforeOther);
    expect(await undo(mergeId)).toMatchObject({ error: { kind: 'notFound' } });
  });
  it('born on two days they are one only with a reason for that, which is kept', async () => {
    const two = await pair(1, 2);
    for (const [birthDatesReason, code] of [
      ['', 'mergeBirthDates'],
      ['xy', 'reasonRequired'],
    ])
      expect(await world.do('mergeWearers', { ...two, birthDatesReason }, merle())).toMatchObject({
        error: { fields: [{ path: ['birthDatesReason'], code }] },
      });
    const mergeId = await merge(1, 2);
    const { merges } = (await world.must('readMerges', {}, merle())) as unknown as { readonly merges: readonly { birthDatesReason: string | null }[] };
    expect(merges[0]?.birthDatesReason).toBe('one was made up at the desk');
    await undo(mergeId);
  });
  it('the merged one is found by its number and its name as the one that it is part of, and is in no list of its own', async () => {
    const mergeId = await merge(1, 2);
    const found = async (search: string) =>
      ((await world.must('searchWearers', { search })) as unknown as { readonly wearers: readonly { name: string }[] }).wearers.map((w) => w.name);
    expect(await found('2')).toEqual(['Nessa Quillby']);
    expect(await found('Caspian')).toEqual(['Nessa Quillby']);
    expect(await found('')).not.toContain('Caspian Udell');
    expect(await world.do('readWearer', { wearerId: await world.wearerId(2) })).toMatchObject({
      error: { rule: 'wearerMerged', data: { into: await world.wearerId(1) } },
    });
    expect(await world.do('openVisit', { wearerId: await world.wearerId(2), kind: 'longFollowUp' })).toMatchObject({ error: { kind: 'notFound' } });
    const again = { name: 'Caspian Udell', birthDate: '2011-05-02', guardian: 'Orla Udell, aunt' };
    expect(await world.do('createWearer', again)).toMatchObject({ error: { fields: [{ code: 'wearerExists', data: { record: 1, name: 'Nessa Quillby' } }] } });
    await expect(
      owner()`insert into visit (id, practice_id, wearer_id, kind, opened_at, opened_by)
        values (gen_random_uuid(), ${world.practiceId}, ${await world.wearerId(2)}, 'longFollowUp', now(), ${world.asha.personId})`,
    ).rejects.toThrow(/merged/);
    await undo(mergeId);
  });
  it('one prescription is in force: the one signed last, whichever record it came with', async () => {
    const mergeId = await merge(1, 2);
    const file = (await world.must('readWearer', { wearerId: await world.wearerId(1) })) as unknown as {
      readonly prescriptions: readonly { id: string; number: number }[];
    };
    const [newest, older] = file.prescriptions;
    expect(newest && older && newest.number > older.number).toBe(true);
    const { visitId = '' } = await world.must('openVisit', { wearerId: await world.wearerId(1), kind: 'collection' }, world.callers.coordinator);
    const order = (prescriptionId: string, version: number) =>
      world.do('placeOrder', { visitId, version, requestKey: crypto.randomUUID(), prescriptionId, rightPacks: 1, leftPacks: 0 }, world.callers.coordinator);
    expect(await order(older?.id ?? '', 1)).toMatchObject({ error: { rule: 'prescriptionSuperseded' } });
    expect(await order(newest?.id ?? '', 1)).toMatchObject({ ok: true });
    await world.must('closeVisit', { visitId, version: 2 }, world.callers.coordinator);
    // Whose prescription the order came from: it goes with its visit, which stays. The two can still be taken apart.
    expect(await undo(mergeId)).toMatchObject({ ok: true });
  });
  it('signed anew since, what one prescription replaces belongs to both: they cannot be taken apart any more, and stay one', async () => {
    const mergeId = await merge(4, await (async () => (await withPast(5), 5))());
    const visitId = await world.visit(4, { right: '-2.00', left: '-2.25' }, 'longFollowUp');
    await signPair(world, visitId);
    await world.must('closeVisit', { visitId, version: await world.version(visitId) });
    const before = await owned(await world.wearerId(4));
    expect(await undo(mergeId)).toMatchObject({ error: { rule: 'mergeGrown' } });
    expect(await owned(await world.wearerId(4))).toEqual(before);
  });
  it('a visit that was made of the merged record and what was recorded in it since go back together', async () => {
    const wearerId = await world.wearerId(7);
    const { visitId = '' } = await world.must('openVisit', { wearerId, kind: 'longFollowUp' });
    await world.must('closeVisit', { visitId, version: 1 });
    const before = (await owned(wearerId))['visit'];
    const mergeId = await merge(6, 7);
    // A correction of the old visit: by the owner's hand, as a later entry would be.
    await owner()`update visit set closed_at = null where id = ${visitId}`;
    await world.must('recordRefraction', { visitId, version: await world.version(visitId), right: '-1.00', left: null, vertexMm: 12 });
    await world.must('closeVisit', { visitId, version: await world.version(visitId) });
    expect(await undo(mergeId)).toMatchObject({ ok: true });
    expect((await owned(wearerId))['visit']).toBe(before);
    const [powers] = await owner()`select v.wearer_id from refraction r join visit v on v.id = r.visit_id where r.visit_id = ${visitId}`;
    expect(powers).toEqual({ wearerId });
  });
  it('is refused with what frees it: a visit under way, an older page, one that is part of another already, the same one', async () => {
    const { visitId = '' } = await world.must('openVisit', { wearerId: await world.wearerId(8), kind: 'longFollowUp' });
    const two = await pair(9, 8);
    expect(await world.do('mergeWearers', two, merle())).toMatchObject({ error: { rule: 'mergeVisitOpen', data: { record: 8 } } });
    await world.must('closeVisit', { visitId, version: 1 });
    expect(await world.do('mergeWearers', { ...two, keepVersion: 99 }, merle())).toMatchObject({ error: { kind: 'conflict' } });
    expect(await world.do('mergeWearers', { ...two, otherId: two.keepId }, merle())).toMatchObject({ error: { rule: 'mergeSame' } });
    const first = await merge(9, 8);
    expect(await world.do('compareWearers', { keep: 3, other: 8 }, merle())).toMatchObject({ error: { fields: [{ path: ['other'], code: 'mergedAlready' }] } });
    expect(await world.do('mergeWearers', { ...two, keepVersion: 2, otherVersion: 2 }, merle())).toMatchObject({ error: { rule: 'mergedAlready' } });
    // Merged onwards, the later one is taken apart first.
    const second = await merge(3, 9);
    expect(await undo(first)).toMatchObject({ error: { rule: 'mergeLater', data: { record: 9, into: 3 } } });
    expect(await world.do('readWearer', { wearerId: await world.wearerId(8) })).toMatchObject({ error: { data: { into: await world.wearerId(3) } } });
    expect(await undo(second)).toMatchObject({ ok: true });
    expect(await undo(first)).toMatchObject({ ok: true });
  });
  it('two people who merge at once: one of them is told', async () => {
    const two = await pair(9, 8);
    const done = await Promise.all([world.do('mergeWearers', two, merle()), world.do('mergeWearers', two, merle())]);
    expect(done.filter((d) => d.ok)).toHaveLength(1);
  });
  it('an absolute stop of the one holds for both', async () => {
    const visitId = await world.visit(1, { right: '-2.00', left: '-2.25' });
    await world.must('recordFindings', {
      visitId,
      version: await world.version(visitId),
      right: [{ sign: 'suspected', value: 'cornealInfection' }],
      left: [],
    });
    await world.must('closeVisit', { visitId, version: await world.version(visitId) });
    await merge(3, 1);
    const file = (await world.must('readWearer', { wearerId: await world.wearerId(3) })) as unknown as { readonly stoppedSince: string | null };
    expect(file.stoppedSince).toMatch(/^2026-11-24T/);
    const { visitId: next = '' } = await world.must('openVisit', { wearerId: await world.wearerId(3), kind: 'longFollowUp' });
    const powers = { visitId: next, version: 1, right: '-2.00', left: null, vertexMm: 12 };
    expect(await world.do('recordRefraction', powers)).toMatchObject({ error: { rule: 'absoluteStop' } });
  });
});
