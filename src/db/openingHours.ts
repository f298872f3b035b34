import 'server-only';
import { wholeWeek, type ClosedDay, type Opening, type PracticeHours, type WeekdayHours } from '../core';
import type { Db } from './client';

interface HoursRow {
  readonly weekday: number;
  readonly opensMinute: number | null;
  readonly closesMinute: number | null;
}
const asHours = (row: HoursRow): WeekdayHours => ({
  weekday: row.weekday,
  opening: row.opensMinute === null || row.closesMinute === null ? null : { opensMinute: row.opensMinute, closesMinute: row.closesMinute },
});

/** When the practice is open: the newest of each weekday, and the days of which something was said from a day on. */
export async function findHours(sql: Db, practiceId: string, from: string): Promise<PracticeHours> {
  const [row] = await sql<{ week: HoursRow[]; closedDays: ClosedDay[] }[]>`
    select
      (select coalesce(jsonb_agg(h), '[]') from (
        select distinct on (weekday) weekday, opens_minute as "opensMinute", closes_minute as "closesMinute" from opening_hours
        where practice_id = ${practiceId} order by weekday, sequence desc) h) as week,
      (select coalesce(jsonb_agg(c order by c.day), '[]') from (
        select distinct on (day) day::text, name, closed from closed_day
        where practice_id = ${practiceId} and day >= ${from} order by day, sequence desc) c) as closed_days`;
  return { week: wholeWeek((row?.week ?? []).map(asHours)), closedDays: row?.closedDays ?? [] };
}

/** Who recorded it, and when. */
export interface Recorded {
  readonly id: string;
  readonly practiceId: string;
  readonly at: string;
  readonly by: string;
}

export async function insertOpeningHours(sql: Db, weekday: number, opening: Opening, { id, practiceId, at, by }: Recorded): Promise<void> {
  await sql`insert into opening_hours ${sql({
    id,
    practiceId,
    weekday,
    opensMinute: opening?.opensMinute ?? null,
    closesMinute: opening?.closesMinute ?? null,
    recordedAt: at,
    recordedBy: by,
  })}`;
}

export async function insertClosedDay(sql: Db, day: ClosedDay, { id, practiceId, at, by }: Recorded): Promise<void> {
  await sql`insert into closed_day ${sql({ id, practiceId, ...day, recordedAt: at, recordedBy: by })}`;
}
