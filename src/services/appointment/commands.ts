import 'server-only';
import { isDeepStrictEqual } from 'node:util';
import { addDays, nextOpenDay, takesPlace, type AppointmentEventKind, type Slot } from '../../core';
import { changeAppointment, holdDiary, insertAppointment, listAppointmentEvents, lockAppointment, type Appointment } from '../../db/appointment';
import { findHours } from '../../db/openingHours';
import { changeTask, insertTask, lockOpenTaskOf } from '../../db/task';
import { findOpenVisitOf } from '../../db/visit';
import { findWearer } from '../../db/wearer';
import { err, notFound, ok, ruleBroken, type FieldProblem, type Result } from '../../lib/outcome';
import { bookForm, lateForm, markForm, moveForm, undoAppointmentForm } from '../../schema/appointment';
import { asKnown } from '../asKnown';
import { defineCommand, type Context } from '../define';
import { clockOf } from './moments';
import { takenProblems, takePlace } from './place';

interface Changed {
  readonly appointmentId: string;
  readonly version: number;
}
const about = (form: { readonly appointmentId: string }) => ({ subjectKind: 'appointment', subjectId: form.appointmentId });

const held = async ({ tx, caller }: Context, form: { readonly appointmentId: string; readonly version: number }): Promise<Result<Appointment>> =>
  asKnown(await lockAppointment(tx, caller.practiceId, form.appointmentId), form.version, 'appointment');

async function change(context: Context, now: Appointment, kind: AppointmentEventKind, reason: string | null): Promise<Result<Changed>> {
  await changeAppointment(context.tx, now, { kind, reason, at: context.now, by: context.caller.personId });
  return ok({ appointmentId: now.id, version: now.version + 1 });
}

export const bookAppointment = defineCommand({
  name: 'bookAppointment',
  right: 'wearers',
  input: bookForm,
  about: (_form, out: Changed) => about(out),
  run: async (context, form): Promise<Result<Changed>> => {
    const { tx, caller, now } = context;
    if (!(await findWearer(tx, caller.practiceId, form.wearerId))) return notFound('wearer');
    const slot = await takePlace(context, { wearerId: form.wearerId }, form);
    if (!slot.ok) return slot;
    const id = context.newId();
    const made = { ...slot.value, id, practiceId: caller.practiceId, wearerId: form.wearerId, kind: form.kind, note: form.note };
    await insertAppointment(tx, made, { reason: form.despite, at: now, by: caller.personId });
    return ok({ appointmentId: id, version: 1 });
  },
});

export const moveAppointment = defineCommand({
  name: 'moveAppointment',
  right: 'wearers',
  input: moveForm,
  about,
  run: async (context, form): Promise<Result<Changed>> => {
    const found = await held(context, form);
    if (!found.ok) return found;
    if (found.value.state === 'done' || found.value.state === 'arrived') return ruleBroken('alreadyHere');
    const slot = await takePlace(context, { id: found.value.id, wearerId: found.value.wearerId }, form);
    if (!slot.ok) return slot;
    if (found.value.state === 'missed') await withdrawCall(context, found.value);
    // Moved, it is booked again, whatever became of it at its old time.
    return change(context, { ...found.value, ...slot.value, state: 'booked', lateMinutes: 0 }, 'moved', form.despite);
  },
});

export const markAppointment = defineCommand({
  name: 'markAppointment',
  right: 'wearers',
  input: markForm,
  about,
  run: async (context, form): Promise<Result<Changed>> => {
    const { tx, caller, now, today, practice } = context;
    const found = await held(context, form);
    if (!found.ok) return found;
    const from = found.value;
    if (from.state === form.as) return ok({ appointmentId: from.id, version: from.version });
    const underWay = await findOpenVisitOf(tx, caller.practiceId, from.id);
    if (form.as !== 'arrived' && (underWay !== null || from.state === 'done')) return ruleBroken('alreadyHere');
    if (form.as === 'arrived' && clockOf(from.startsAt, practice.timeZone).day > today) return ruleBroken('notToday');
    if (form.as === 'missed' && from.startsAt > now) return ruleBroken('notYet');
    if (form.as === 'missed') await callAboutIt(context, from);
    else if (from.state === 'missed') await withdrawCall(context, from);
    return change(context, { ...from, state: form.as }, form.as, form.reason);
  },
});

/** Somebody who did not come is called on the next day that the practice is open. */
async function callAboutIt(context: Context, { id, wearerId }: Appointment): Promise<void> {
  const { tx, caller, now, today } = context;
  const tomorrow = addDays(today, 1);
  const dueOn = nextOpenDay(await findHours(tx, caller.practiceId, tomorrow), tomorrow) ?? tomorrow;
  const task = { id: context.newId(), practiceId: caller.practiceId, kind: 'call', text: null, because: 'missedAppointment' } as const;
  await insertTask(tx, { ...task, wearerId, appointmentId: id, dueOn, assignedTo: null }, { note: null, at: now, by: caller.personId });
}

/** Who comes after all, or is booked anew, need not be called about it. */
async function withdrawCall({ tx, caller, now }: Context, { id }: Appointment): Promise<void> {
  const task = await lockOpenTaskOf(tx, caller.practiceId, id, 'missedAppointment');
  if (task) await changeTask(tx, { ...task, doneAt: now }, { kind: 'withdrawn', note: null, at: now, by: caller.personId });
}

export const sayLate = defineCommand({
  name: 'sayLate',
  right: 'wearers',
  input: lateForm,
  about,
  run: async (context, form): Promise<Result<Changed>> => {
    const found = await held(context, form);
    if (!found.ok) return found;
    if (found.value.state !== 'booked') return ruleBroken('alreadyHere');
    return change(context, { ...found.value, lateMinutes: form.minutes }, 'late', null);
  },
});

export const undoAppointment = defineCommand({
  name: 'undoAppointment',
  right: 'wearers',
  input: undoAppointmentForm,
  about,
  run: async (context, form): Promise<Result<Changed>> => {
    const { tx, caller } = context;
    const found = await held(context, form);
    if (!found.ok) return found;
    if (found.value.state === 'done' || (await findOpenVisitOf(tx, caller.practiceId, form.appointmentId)) !== null) return ruleBroken('alreadyHere');
    const [newest, before] = await listAppointmentEvents(tx, caller.practiceId, form.appointmentId);
    if (!newest || newest.kind === 'undone') return ruleBroken('nothingToUndo');
    // What was only just booked is booked no longer.
    if (!before) return change(context, { ...found.value, state: 'cancelled' }, 'undone', null);
    const { startsAt, roomId, staffId, chairMinutes, staffMinutes, state, lateMinutes } = before;
    const back = { ...found.value, startsAt, roomId, staffId, chairMinutes, staffMinutes, state, lateMinutes };
    const taken = form.despite === null ? await takenMeanwhile(context, found.value, back) : [];
    if (taken.length > 0) return err({ kind: 'invalid', fields: taken });
    if (found.value.state === 'missed') await withdrawCall(context, found.value);
    return change(context, back, 'undone', form.despite);
  },
});

/** What stands where an appointment would go back to. A place that it holds already is its own. */
async function takenMeanwhile(context: Context, now: Appointment, back: Appointment): Promise<readonly FieldProblem[]> {
  if (!takesPlace(back.state)) return [];
  if (takesPlace(now.state) && isDeepStrictEqual(slotOf(now), slotOf(back))) return [];
  await holdDiary(context.tx, context.caller.practiceId);
  return takenProblems(context, { id: now.id, wearerId: now.wearerId }, clockOf(back.startsAt, context.practice.timeZone).day, slotOf(back));
}
const slotOf = ({ roomId, staffId, startsAt, chairMinutes, staffMinutes }: Appointment): Slot => ({ roomId, staffId, startsAt, chairMinutes, staffMinutes });
