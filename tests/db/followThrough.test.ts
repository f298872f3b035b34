import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays, FIRST_DAYS } from '../../src/core';
import { followThrough } from '../../src/jobs/followThrough';
import { fillDrawer } from '../support/drawer';
import { TEST_NOW, TEST_TODAY } from '../support/moment';
import { openWorld, taughtAndGiven, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
  await fillDrawer(world.db.owner, 80);
}, 120_000);
afterAll(() => world.db.close());

const later = (days: number): string => new Date(Date.parse(TEST_NOW) + days * 86_400_000).toISOString();
const follow = (days: number) => followThrough(world.db.app, world.practiceId, later(days));
const wearerOf = async (visitId: string): Promise<string> =>
  (await world.db.owner<{ id: string }[]>`select wearer_id as id from visit where id = ${visitId}`)[0]?.id ?? '';
const messagesOf = (wearerId: string) => world.db.owner<{ day: number; dueAt: Date }[]>`
  select (data ->> 'day')::int as day, due_at from message where wearer_id = ${wearerId} and kind = 'firstDays' order by 1`;
const tasksOf = (wearerId: string) => world.db.owner<{ kind: string; dueOn: string; doneAt: string | null }[]>`
  select kind, due_on::text as due_on, done_at from task where wearer_id = ${wearerId} and because = 'notSeenAgain'`;
const agree = (wearerId: string) => world.must('chooseContact', { wearerId, way: 'text', recipient: '555 0111' });

describe('after a lesson', () => {
  it('a word on days 1, 3 and 7 to whoever agreed, each once, in the hours in which the practice writes', async () => {
    const wearerId = await wearerOf(await taughtAndGiven(world));
    const silent = await wearerOf(await taughtAndGiven(world));
    await agree(wearerId);
    for (const day of [0, 1, 1, 2, 3, 4, 7, 8]) await follow(day);
    const rows = await messagesOf(wearerId);
    expect(rows.map((r) => r.day)).toEqual([...FIRST_DAYS]);
    expect(await messagesOf(silent)).toEqual([]);
  });
  it('nothing to a wearer whose lenses stayed here, or under an absolute stop', async () => {
    const visitId = await taughtAndGiven(world);
    const wearerId = await wearerOf(visitId);
    await agree(wearerId);
    await world.db.owner`alter table hand_over disable trigger all`;
    await world.db.owner`update hand_over set recorded_at = recorded_at - interval '1 year' where wearer_id = ${wearerId}`;
    await world.db.owner`alter table hand_over enable trigger all`;
    await follow(1);
    expect(await messagesOf(wearerId)).toEqual([]);
  });
  it('who was not seen within a week and three days is somebody’s to call: one task, not another one', async () => {
    const wearerId = await wearerOf(await taughtAndGiven(world));
    await follow(9);
    expect(await tasksOf(wearerId)).toEqual([]);
    await follow(10);
    await follow(11);
    expect(await tasksOf(wearerId)).toMatchObject([{ kind: 'recall', dueOn: addDays(TEST_TODAY, 10), doneAt: null }]);
  });
  it('who came back, or will, is not called', async () => {
    const [came, comes] = [await wearerOf(await taughtAndGiven(world)), await wearerOf(await taughtAndGiven(world))];
    world.move(86_400);
    await world.must('openVisit', { wearerId: came, kind: 'shortFollowUp' });
    world.move(-86_400);
    const place = { day: addDays(TEST_TODAY, 20), time: '10:00', chairMinutes: 30, staffMinutes: 20, roomId: null, staffId: null, despite: '' };
    await world.must('bookAppointment', { wearerId: comes, kind: 'shortFollowUp', note: '', ...place });
    await follow(12);
    expect(await tasksOf(came)).toEqual([]);
    expect(await tasksOf(comes)).toEqual([]);
    // The appointment passed, and nobody came.
    await follow(21);
    expect(await tasksOf(comes)).toHaveLength(1);
  });
});
