import 'server-only';
import { listStaff } from '../../db/staff';
import { listDoneTasks, listOpenTasks, type TaskRow } from '../../db/task';
import { ok, type Result } from '../../lib/outcome';
import { tasksForm } from '../../schema/task';
import { defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';

export interface TasksPage {
  readonly session: SessionContext;
  readonly which: 'open' | 'done';
  readonly tasks: readonly TaskRow[];
  /** Who may be given one. */
  readonly staff: readonly { readonly id: string; readonly name: string }[];
}

export const readTasks = defineQuery({
  name: 'readTasks',
  right: 'wearers',
  input: tasksForm,
  about: () => null,
  run: async (context, form): Promise<Result<TasksPage>> => {
    const { tx, caller } = context;
    const tasks = form.which === 'open' ? await listOpenTasks(tx, caller.practiceId) : await listDoneTasks(tx, caller.practiceId);
    const staff = (await listStaff(tx, caller.practiceId)).filter((s) => s.endedAt === null);
    return ok({ session: sessionContextOf(context), which: form.which, tasks, staff: staff.map((s) => ({ id: s.personId, name: s.displayName })) });
  },
});
