import 'server-only';
import { changeTask as writeChange, insertTask, lockTask, type TaskChange } from '../../db/task';
import { findStaff } from '../../db/staff';
import { findWearer } from '../../db/wearer';
import { invalid, notFound, ok, type Result } from '../../lib/outcome';
import { addTaskForm, changeTaskForm, finishTaskForm } from '../../schema/task';
import { asKnown } from '../asKnown';
import { defineCommand, type Context } from '../define';

const about = (form: { readonly taskId: string }) => ({ subjectKind: 'task', subjectId: form.taskId });

/** Whoever is given a task works here. */
async function strangerProblem(context: Context, personId: string | null): Promise<Result<never> | null> {
  if (personId === null) return null;
  const staff = await findStaff(context.tx, context.caller.practiceId, personId);
  return staff && staff.endedAt === null ? null : invalid('assignedTo', 'staffEnded');
}

const held = async ({ tx, caller }: Context, form: { readonly taskId: string; readonly version: number }): Promise<Result<TaskChange>> =>
  asKnown(await lockTask(tx, caller.practiceId, form.taskId), form.version, 'task');

export const addTask = defineCommand({
  name: 'addTask',
  right: 'wearers',
  input: addTaskForm,
  about: (_form, out: { taskId: string }) => about(out),
  run: async (context, form): Promise<Result<{ taskId: string }>> => {
    const { tx, caller, now, today } = context;
    if (form.dueOn < today) return invalid('dueOn', 'dayPast', { day: form.dueOn });
    if (form.wearerId !== null && !(await findWearer(tx, caller.practiceId, form.wearerId))) return notFound('wearer');
    const stranger = await strangerProblem(context, form.assignedTo);
    if (stranger) return stranger;
    const id = context.newId();
    const task = { ...form, id, practiceId: caller.practiceId, because: null, appointmentId: null };
    await insertTask(tx, task, { note: null, at: now, by: caller.personId });
    return ok({ taskId: id });
  },
});

export const changeTask = defineCommand({
  name: 'changeTask',
  right: 'wearers',
  input: changeTaskForm,
  about,
  run: async (context, form): Promise<Result<null>> => {
    const { tx, caller, now, today } = context;
    const task = await held(context, form);
    if (!task.ok) return task;
    if (form.dueOn < today && form.dueOn !== task.value.dueOn) return invalid('dueOn', 'dayPast', { day: form.dueOn });
    const stranger = await strangerProblem(context, form.assignedTo);
    if (stranger) return stranger;
    const changed = { ...task.value, dueOn: form.dueOn, assignedTo: form.assignedTo };
    await writeChange(tx, changed, { kind: 'changed', note: form.note, at: now, by: caller.personId });
    return ok(null);
  },
});

export const finishTask = defineCommand({
  name: 'finishTask',
  right: 'wearers',
  input: finishTaskForm,
  about,
  run: async (context, form): Promise<Result<null>> => {
    const { tx, caller, now } = context;
    const task = await held(context, form);
    if (!task.ok) return task;
    const changed = { ...task.value, doneAt: form.done ? now : null };
    await writeChange(tx, changed, { kind: form.done ? 'done' : 'reopened', note: form.note, at: now, by: caller.personId });
    return ok(null);
  },
});
