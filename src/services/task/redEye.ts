import 'server-only';
import { changeTask, insertTask, lockOpenTaskOfWearer } from '../../db/task';
import type { Context } from '../define';

/** Whoever has, or reported, a red eye is called the day after, whether or not the practice is open: one call, however often it was said. */
export async function callNextDay(context: Context, wearerId: string, dueOn: string): Promise<void> {
  const { tx, caller, now } = context;
  if (await lockOpenTaskOfWearer(tx, caller.practiceId, wearerId, 'redEye')) return;
  const task = { id: context.newId(), practiceId: caller.practiceId, kind: 'call', text: null, because: 'redEye', appointmentId: null } as const;
  await insertTask(tx, { ...task, wearerId, dueOn, assignedTo: null }, { note: null, at: now, by: caller.personId });
}

/** They were called: the task is done. */
export async function calledNextDay({ tx, caller, now }: Context, wearerId: string): Promise<void> {
  const task = await lockOpenTaskOfWearer(tx, caller.practiceId, wearerId, 'redEye');
  if (task) await changeTask(tx, { ...task, doneAt: now }, { kind: 'done', note: null, at: now, by: caller.personId });
}
