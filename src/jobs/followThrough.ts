import { addDays, DEFAULT_SETTINGS, dayIn, FIRST_DAYS, notSeenWindow } from '../core';
import type { Sql } from '../db/client';
import { makeNotSeenTasks, writeFirstDays } from '../db/followThrough';
import { findPractice } from '../db/practice';
import { boundsOf } from '../services/appointment/moments';
import { writtenAt } from '../services/outbox/write';

/**
 * What follows a new wearer's lesson: a word on days 1, 3 and 7, and a task for whoever did not come back. Each once however often it is
 * asked; nothing leaves by itself.
 * @returns how many of each
 */
export async function followThrough(sql: Sql, practiceId: string, at: string): Promise<{ readonly written: number; readonly tasks: number }> {
  const practice = await findPractice(sql, practiceId);
  if (!practice) return { written: 0, tasks: 0 };
  const { timeZone } = practice;
  const today = dayIn(at, timeZone);
  const note = writtenAt(at, null, { ...DEFAULT_SETTINGS, ...practice.settings }, timeZone);
  let written = 0;
  for (const day of FIRST_DAYS) written += await writeFirstDays(sql, practiceId, { ...note, ...boundsOf(addDays(today, -day), timeZone), day });
  const tasks = await makeNotSeenTasks(sql, practiceId, { window: notSeenWindow(today), timeZone, at, dueOn: today });
  return { written, tasks };
}
