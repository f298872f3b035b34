import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bringToToday } from '../../demo/lives/bringToToday';
import { beginHalfMade, endHalfMade, isHalfMade } from '../../demo/lives/halfMade';
import { loadLivingDemo, type Told } from '../../demo/lives/loadLivingDemo';
import { STORIES, type Story } from '../../demo/lives/people';
import { exportRecord, importRecord } from '../../scripts/lib/personJobs';
import { connect, type Sql } from '../../src/db/client';
import { migrate } from '../../src/db/migrate';
import { createDatabase, type TestDatabase } from '../support/database';

/** Monday noon in New York; and a Sunday, on which nobody is seen. */
const MONDAY = '2026-11-23T17:00:00.000Z';
const SUNDAY = '2027-01-17T17:00:00.000Z';
/** One of every kind of story, the shortest of each. */
const kindOf = ({ since: _since, age, turn, givesUp, redEye, ...flags }: Story): string =>
  JSON.stringify({ ...flags, minor: age < 18, helped: age < 12, turns: (turn ?? 0) > 10, givesUp: givesUp?.why, redEye: redEye !== undefined });
const SOME = [...STORIES.reduceRight((of, story) => of.set(kindOf(story), of.get(kindOf(story)) ?? story), new Map<string, Story>()).values()];

async function tellIn(db: TestDatabase, now: string, stories: readonly Story[]): Promise<{ sql: Sql; told: Told }> {
  const sql = connect(db.ownerUrl, { max: 1 });
  await migrate(sql);
  return { sql, told: await loadLivingDemo(sql, now, null, stories) };
}

let db: TestDatabase;
let sql: Sql;
let told: Told;
beforeAll(async () => {
  db = await createDatabase({ template: 'template1' });
  ({ sql, told } = await tellIn(db, MONDAY, SOME));
}, 120_000);
afterAll(async () => {
  await sql.end();
  await db.close();
});
const count = async (query: string): Promise<number> => Number((await sql.unsafe(`select count(*)::int as n from (${query}) x`))[0]?.['n']);

describe('the practice that the demo shows', () => {
  it('was told by the rules: nothing that any of its people tried was refused', () => {
    expect(SOME.length).toBeGreaterThan(12);
    expect(told.refused).toEqual([]);
  });
  it('has a past that ends today: nothing is written after its moment, and no visit is left open', async () => {
    for (const [table, column] of [
      ['visit', 'opened_at'],
      ['prescription', 'issued_at'],
      ['hand_over', 'recorded_at'],
      ['order_event', 'at'],
      ['appointment_event', 'at'],
    ]) {
      expect(await count(`select 1 from ${table}`)).toBeGreaterThan(0);
      // A visit that began before the moment may be told to its end.
      expect(await count(`select 1 from ${table} where ${column} > '${MONDAY}'::timestamptz + interval '2 hours'`)).toBe(0);
    }
    expect(await count(`select 1 from visit where closed_at is null and opened_at < '${MONDAY}'::timestamptz - interval '1 day'`)).toBe(0);
  });
  it('a life of years leaves as one document, and is the same document again in an empty database', async () => {
    const [life] = await sql<{ recordNumber: number; count: number }[]>`
      select w.record_number, count(*)::int as count from wearer w join hand_over h on h.wearer_id = w.id group by 1 order by 2 desc limit 1`;
    expect(life?.count).toBeGreaterThan(5);
    const text = await exportRecord(sql, life?.recordNumber ?? 0);
    const empty = await createDatabase({ template: 'template1' });
    const there = connect(empty.ownerUrl, { max: 1 });
    await migrate(there);
    await importRecord(empty.ownerUrl, text);
    expect((await exportRecord(there, life?.recordNumber ?? 0)) === text).toBe(true);
    await there.end();
    await empty.close();
  });
  it('has no place in the diary that two people hold', async () => {
    expect(
      await count(`
        select 1 from appointment a join appointment b on b.id > a.id and a.room_id = b.room_id
          and a.state not in ('cancelled', 'missed') and b.state not in ('cancelled', 'missed')
          and a.starts_at < b.starts_at + b.chair_minutes * interval '1 minute' and b.starts_at < a.starts_at + a.chair_minutes * interval '1 minute'
        where not exists (select 1 from appointment_event e where e.appointment_id in (a.id, b.id) and e.reason is not null)
          -- The day's own wearers are put into the diary as they are.
          and (a.starts_at at time zone 'America/New_York')::date <> '2026-11-23'`),
    ).toBe(0);
  });
  it('has a trial drawer whose counts are the sums of its movements', async () => {
    expect(await count('select 1 from trial_stock')).toBeGreaterThan(0);
    expect(
      await count(
        `select s.id from trial_stock s left join trial_movement m on m.trial_stock_id = s.id group by s.id, s.count having s.count <> sum(m.change)`,
      ),
    ).toBe(0);
  });
  it('has wearers at every stage: prescribed, ordered, collected, a stopped eye, one who did not come, tasks', async () => {
    for (const query of [
      `select 1 from prescription where supersedes_id is not null`,
      `select 1 from prescription_eye e join lens l on l.id = e.lens_id where l.add_band is not null`,
      `select 1 from order_event where state = 'acknowledged'`,
      `select 1 from hand_over where source = 'order'`,
      `select 1 from lesson_sign_off`,
      `select 1 from safety_stop s where not exists (select 1 from safety_stop_end e where e.stop_id = s.id)`,
      `select 1 from referral_step where step = 'phoned'`,
      `select 1 from appointment where state = 'missed'`,
      `select 1 from task where because = 'missedAppointment'`,
      `select 1 from task where kind = 'recall'`,
      `select 1 from appointment where starts_at > '${MONDAY}'`,
      `select 1 from wearer_identity where guardian is not null`,
    ])
      expect(await count(query), query).toBeGreaterThan(0);
  });
  it('every prescription has its evidence: nothing was overridden', async () => {
    expect(await count('select 1 from prescription')).toBeGreaterThan(5);
    expect(await count(`select 1 from prescription where overrides <> '[]'`)).toBe(0);
  });
  it('a week later, whoever was booked meanwhile and never came is booked anew, in no taken place', async () => {
    const before = await count(`select 1 from appointment where state = 'booked' and starts_at < '2026-11-30T05:00:00Z'`);
    expect(before).toBeGreaterThan(5);
    expect(await bringToToday(sql, '2026-11-30T15:00:00.000Z')).toBe(before);
    expect(await count(`select 1 from appointment where state = 'booked' and starts_at < '2026-11-30T05:00:00Z'`)).toBe(0);
    expect(
      await count(`select 1 from appointment where state = 'booked' and (starts_at at time zone 'America/New_York')::date = '2026-11-30'`),
    ).toBeGreaterThan(5);
    expect(await bringToToday(sql, '2026-11-30T15:00:00.000Z')).toBe(0);
  });
});

describe('making it', () => {
  it('works on a day on which nobody is seen, too; and the day after is a day of its own', async () => {
    const other = await createDatabase({ template: 'template1' });
    const made = await tellIn(other, SUNDAY, SOME.slice(0, 3));
    expect(made.told.refused).toEqual([]);
    expect(await bringToToday(made.sql, '2027-01-24T17:00:00.000Z')).toBeGreaterThan(0);
    await made.sql.end();
    await other.close();
  }, 60_000);
  it('says in the database that it is not whole, until it is', async () => {
    expect(await isHalfMade(sql)).toBe(false);
    await beginHalfMade(sql);
    expect(await isHalfMade(sql)).toBe(true);
    await endHalfMade(sql);
    expect(await isHalfMade(sql)).toBe(false);
  });
});
