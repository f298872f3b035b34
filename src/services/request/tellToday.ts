import 'server-only';
import type { IsoDate, IsoInstant } from '../../core';
import type { Db } from '../../db/client';
import { countOpenRequests } from '../../db/request';
import { changeTask, insertTask, lockOpenTaskBecause } from '../../db/task';

/** One line on Today for whatever waits: made with the first, done with the last. @param of `by` null where nobody of the practice did it */
export async function tellToday(
  sql: Db,
  of: { readonly practiceId: string; readonly at: IsoInstant; readonly today: IsoDate; readonly by: string | null },
): Promise<void> {
  const { practiceId, at, today, by } = of;
  const waiting = await countOpenRequests(sql, practiceId);
  const task = await lockOpenTaskBecause(sql, practiceId, 'request');
  if (waiting > 0 && !task) {
    const made = { id: crypto.randomUUID(), practiceId, kind: 'other', text: null, because: 'request', wearerId: null, appointmentId: null } as const;
    await insertTask(sql, { ...made, dueOn: today, assignedTo: null }, { note: null, at, by });
  } else if (waiting === 0 && task) await changeTask(sql, { ...task, doneAt: at }, { kind: 'done', note: null, at, by });
}
