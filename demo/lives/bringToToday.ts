import { formatMinuteOfDay, type FreeSlot, type IsoInstant, type Opening } from '../../src/core';
import type { Sql } from '../../src/db/client';
import { DEMO_PRACTICE } from '../load';
import { boundsOf, clockOf } from '../../src/services/appointment/moments';
import { Practice, Refused } from './practice';

/** Said where an appointment comes to a day on which the practice is closed. */
const OPEN_ALL_THE_SAME = 'the demo is open today';

/**
 * Whoever was booked for a day that is past and never came is booked for today, at the hour that they had or the next free one:
 * a demo made last week still has a day to show. By the same use cases as at the front desk, so that it is kept as a move.
 * @returns how many were moved
 */
export async function bringToToday(sql: Sql, now: IsoInstant): Promise<number> {
  // A practice of somebody's own is left alone.
  const [found] = await sql<{ id: string }[]>`select id from practice where name = ${DEMO_PRACTICE} order by created_at limit 1`;
  if (!found) return 0;
  const practice = await Practice.open(sql, found.id, now);
  const { from } = boundsOf(practice.today, practice.timeZone);
  const waiting = await sql<
    {
      id: string;
      version: number;
      wearerId: string;
      kind: string;
      startsAt: string;
      chairMinutes: number;
      staffMinutes: number;
      roomId: string;
      staffId: string;
    }[]
  >`
    select id, version, wearer_id, kind, starts_at, chair_minutes, staff_minutes, room_id, staff_id from appointment
    where practice_id = ${found.id} and state = 'booked' and starts_at < ${from} order by starts_at`;
  if (waiting.length === 0) return 0;
  const { day } = (await practice.does('renny', 'readToday', {})) as unknown as { readonly day: { readonly opening: Opening } };
  const despite = day.opening === null ? OPEN_ALL_THE_SAME : '';
  for (const { id, version, wearerId, kind, startsAt, ...place } of waiting) {
    const move = { ...place, appointmentId: id, version, day: practice.today, time: formatMinuteOfDay(clockOf(startsAt, practice.timeZone).minute), despite };
    try {
      await practice.does('renny', 'moveAppointment', move);
    } catch (cause) {
      if (!(cause instanceof Refused)) throw cause;
      const wanted = { kind, chairMinutes: place.chairMinutes, staffMinutes: place.staffMinutes, staffId: place.staffId, roomId: null, wearerId };
      const [free] = (await practice.does('renny', 'findFree', { ...wanted, from: practice.today })) as unknown as readonly FreeSlot[];
      if (!free) continue;
      const to = clockOf(free.startsAt, practice.timeZone);
      await practice.does('renny', 'moveAppointment', { ...move, roomId: free.roomId, day: to.day, time: formatMinuteOfDay(to.minute) });
    }
  }
  return waiting.length;
}
