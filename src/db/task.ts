import 'server-only';
import type { TaskBecause, TaskEventKind, TaskKind } from '../core';
import type { Db } from './client';

export interface TaskRow {
  readonly id: string;
  readonly kind: TaskKind;
  readonly text: string | null;
  /** Why the product made it. */
  readonly because: TaskBecause | null;
  /** When the appointment was that it is about. */
  readonly appointmentAt: string | null;
  readonly dueOn: string;
  readonly wearerId: string | null;
  readonly wearerName: string | null;
  readonly telephone: string | null;
  readonly appointmentId: string | null;
  readonly assignedTo: string | null;
  readonly assignedName: string | null;
  readonly doneAt: string | null;
  readonly doneByName: string | null;
  /** What asked for it is gone: it was withdrawn by the product, not done. */
  readonly withdrawn: boolean;
  /** What was said when it was last changed or done. */
  readonly note: string | null;
  readonly version: number;
}

const rows = (sql: Db) => sql`
  select t.id, t.kind, t.text, t.because, a.starts_at as appointment_at, t.due_on, t.wearer_id, i.name as wearer_name, i.telephone, t.appointment_id, t.assigned_to,
    p.display_name as assigned_name, t.done_at, t.version, e.note, coalesce(e.kind = 'withdrawn', false) as withdrawn,
    case when t.done_at is null then null else b.display_name end as done_by_name
  from task t
  left join wearer_identity i on i.wearer_id = t.wearer_id
  left join person p on p.id = t.assigned_to
  left join appointment a on a.id = t.appointment_id
  left join lateral (select kind, note, by from task_event where practice_id = t.practice_id and task_id = t.id order by sequence desc limit 1) e on true
  left join person b on b.id = e.by`;

/** Open tasks, the one due first at the top. @param until those due by this day; all when absent */
export function listOpenTasks(sql: Db, practiceId: string, until: string | null = null) {
  return sql<TaskRow[]>`
    ${rows(sql)} where t.practice_id = ${practiceId} and t.done_at is null ${until === null ? sql`` : sql`and t.due_on <= ${until}`}
    order by t.due_on, t.kind, t.id limit 200`;
}

/** The tasks done last. */
export function listDoneTasks(sql: Db, practiceId: string) {
  return sql<TaskRow[]>`${rows(sql)} where t.practice_id = ${practiceId} and t.done_at is not null order by t.done_at desc limit 50`;
}

/** A wearer's open tasks. */
export function listTasksOf(sql: Db, practiceId: string, wearerId: string) {
  return sql<TaskRow[]>`
    ${rows(sql)} where t.practice_id = ${practiceId} and t.wearer_id = ${wearerId} and t.done_at is null order by t.due_on limit 20`;
}

export interface NewTask {
  readonly id: string;
  readonly practiceId: string;
  readonly kind: TaskKind;
  readonly text: string | null;
  readonly because: TaskBecause | null;
  readonly wearerId: string | null;
  readonly appointmentId: string | null;
  readonly dueOn: string;
  readonly assignedTo: string | null;
}
export interface TaskEvent {
  readonly kind: TaskEventKind;
  readonly note: string | null;
  readonly at: string;
  /** Null where it came about by itself. */
  readonly by: string | null;
}

const insertEvent = (sql: Db, task: Pick<NewTask, 'id' | 'practiceId' | 'dueOn' | 'assignedTo'>, event: TaskEvent) => sql`
  insert into task_event ${sql({ practiceId: task.practiceId, taskId: task.id, dueOn: task.dueOn, assignedTo: task.assignedTo, ...event })}`;

export async function insertTask(sql: Db, task: NewTask, event: Omit<TaskEvent, 'kind'>): Promise<void> {
  await sql`insert into task ${sql({ ...task })}`;
  await insertEvent(sql, task, { ...event, kind: 'made' });
}

export interface TaskChange {
  readonly id: string;
  readonly practiceId: string;
  readonly version: number;
  readonly dueOn: string;
  readonly assignedTo: string | null;
  readonly doneAt: string | null;
}

/** Held to the end of the transaction. */
export async function lockTask(sql: Db, practiceId: string, id: string): Promise<TaskChange | null> {
  const [row] = await sql<TaskChange[]>`
    select id, practice_id, version, due_on, assigned_to, done_at from task where practice_id = ${practiceId} and id = ${id} for update`;
  return row ?? null;
}

/** An open task that the product made of an appointment, held to the end of the transaction. */
export async function lockOpenTaskOf(sql: Db, practiceId: string, appointmentId: string, because: TaskBecause): Promise<TaskChange | null> {
  const [row] = await sql<TaskChange[]>`
    select id, practice_id, version, due_on, assigned_to, done_at from task
    where practice_id = ${practiceId} and appointment_id = ${appointmentId} and because = ${because} and done_at is null for update`;
  return row ?? null;
}

/** An open task that the product made of a wearer, held to the end of the transaction. */
export async function lockOpenTaskOfWearer(sql: Db, practiceId: string, wearerId: string, because: TaskBecause): Promise<TaskChange | null> {
  const [row] = await sql<TaskChange[]>`
    select id, practice_id, version, due_on, assigned_to, done_at from task
    where practice_id = ${practiceId} and wearer_id = ${wearerId} and because = ${because} and done_at is null
    order by due_on limit 1 for update`;
  return row ?? null;
}

/** The practice's open task of a kind that it has once, held to the end of the transaction. */
export async function lockOpenTaskBecause(sql: Db, practiceId: string, because: TaskBecause): Promise<TaskChange | null> {
  const [row] = await sql<TaskChange[]>`
    select id, practice_id, version, due_on, assigned_to, done_at from task
    where practice_id = ${practiceId} and because = ${because} and done_at is null order by due_on limit 1 for update`;
  return row ?? null;
}

/** Makes a task, held by `lockTask`, what it is now, and keeps that in its story. */
export async function changeTask(sql: Db, task: TaskChange, event: TaskEvent): Promise<void> {
  await sql`
    update task set due_on = ${task.dueOn}, assigned_to = ${task.assignedTo}, done_at = ${task.doneAt}, version = version + 1
    where practice_id = ${task.practiceId} and id = ${task.id}`;
  await insertEvent(sql, task, event);
}
