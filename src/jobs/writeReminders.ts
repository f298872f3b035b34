import 'server-only';
import { addDays, DEFAULT_SETTINGS, dayIn, dueWindow } from '../core';
import type { Sql } from '../db/client';
import { writeAppointmentReminders, writeReorderReminders } from '../db/outbox';
import { findPractice } from '../db/practice';
import { boundsOf } from '../services/appointment/moments';
import { writtenAt } from '../services/outbox/write';

/**
 * Writes a day's reminders into the outbox: lenses that run low, appointments that are near. Each once however often it is asked;
 * nothing leaves by itself.
 * @returns how many of each
 */
export async function writeReminders(sql: Sql, practiceId: string, at: string): Promise<{ readonly reorders: number; readonly appointments: number }> {
  const practice = await findPractice(sql, practiceId);
  if (!practice) return { reorders: 0, appointments: 0 };
  const settings = { ...DEFAULT_SETTINGS, ...practice.settings };
  const today = dayIn(at, practice.timeZone);
  const written = writtenAt(at, null, settings, practice.timeZone);
  let [reorders, after] = [0, null as string | null];
  do {
    const batch = await writeReorderReminders(sql, practiceId, { ...written, today, from: dueWindow(today).from, after });
    reorders += batch.written;
    after = batch.last;
  } while (after !== null);
  const day = boundsOf(addDays(today, settings.remindDays), practice.timeZone);
  const appointments = settings.remindDays === 0 ? 0 : await writeAppointmentReminders(sql, practiceId, { ...written, ...day });
  return { reorders, appointments };
}
