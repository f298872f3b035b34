import 'server-only';
import { addDays, closedNameOf, nextFree, openingOn, suitedTo, type FreeSlot, type OpenDay, type Opening, type Role } from '../../core';
import { listAppointmentEvents, listAppointments, listTaken, type AppointmentEventRow, type AppointmentRow } from '../../db/appointment';
import { findHours } from '../../db/openingHours';
import { listRooms } from '../../db/room';
import { listStaff } from '../../db/staff';
import { listOpenTasks, type TaskRow } from '../../db/task';
import { findWearer } from '../../db/wearer';
import { notFound, ok, type Result } from '../../lib/outcome';
import { appointmentForm, diaryForm, freeForm } from '../../schema/appointment';
import { emptyForm } from '../../schema/fields';
import { defineQuery, type Context } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';
import { boundsOf, openDayOf } from './moments';

/** How far ahead a free time is looked for, days; and how many are offered. */
const LOOK_AHEAD_DAYS = 60;
const OFFERED = 4;

/** Somebody or something that appointments are booked for. */
export interface Bookable {
  readonly id: string;
  readonly name: string;
}
/** A day of the diary. */
export interface DiaryDay {
  readonly day: string;
  readonly opening: Opening;
  /** Why the practice is closed, when the day has a name. */
  readonly closedName: string | null;
  readonly rooms: readonly Bookable[];
  readonly staff: readonly (Bookable & { readonly roles: readonly Role[] })[];
  readonly rows: readonly AppointmentRow[];
}

const SEES_WEARERS = ['prescriber', 'technician', 'coordinator'] as const;

async function bookable(context: Context): Promise<Pick<DiaryDay, 'rooms' | 'staff'>> {
  const { tx, caller } = context;
  const rooms = (await listRooms(tx, caller.practiceId)).filter((r) => r.endedAt === null);
  const staff = (await listStaff(tx, caller.practiceId)).filter((s) => s.endedAt === null && SEES_WEARERS.some((role) => s.roles.includes(role)));
  return { rooms: rooms.map(({ id, name }) => ({ id, name })), staff: staff.map((s) => ({ id: s.personId, name: s.displayName, roles: s.roles })) };
}

async function dayOf(context: Context, day: string): Promise<DiaryDay> {
  const { tx, caller, practice } = context;
  const { from, to } = boundsOf(day, practice.timeZone);
  const hours = await findHours(tx, caller.practiceId, day);
  return {
    day,
    opening: openingOn(hours, day),
    closedName: closedNameOf(hours, day),
    rows: await listAppointments(tx, caller.practiceId, from, to),
    ...(await bookable(context)),
  };
}

export const readToday = defineQuery({
  name: 'readToday',
  right: 'read',
  input: emptyForm,
  about: () => null,
  run: async (context): Promise<Result<{ session: SessionContext; day: DiaryDay; tasks: readonly TaskRow[] }>> =>
    ok({
      session: sessionContextOf(context),
      day: await dayOf(context, context.today),
      tasks: await listOpenTasks(context.tx, context.caller.practiceId, context.today),
    }),
});

export const readDiary = defineQuery({
  name: 'readDiary',
  right: 'read',
  input: diaryForm,
  about: () => null,
  run: async (context, form): Promise<Result<{ session: SessionContext; day: DiaryDay; wearer: (Bookable & { readonly birthDate: string }) | null }>> => {
    const wearer = form.wearerId === null ? null : await findWearer(context.tx, context.caller.practiceId, form.wearerId);
    if (form.wearerId !== null && wearer === null) return notFound('wearer');
    return ok({
      session: sessionContextOf(context),
      day: await dayOf(context, form.day ?? context.today),
      wearer: wearer === null ? null : { id: wearer.id, name: wearer.name, birthDate: wearer.birthDate },
    });
  },
});

export const readAppointment = defineQuery({
  name: 'readAppointment',
  right: 'read',
  input: appointmentForm,
  about: (form) => ({ subjectKind: 'appointment', subjectId: form.appointmentId }),
  run: async (context, form): Promise<Result<readonly AppointmentEventRow[]>> => {
    const events = await listAppointmentEvents(context.tx, context.caller.practiceId, form.appointmentId);
    return events.length === 0 ? notFound('appointment') : ok(events);
  },
});

export const findFree = defineQuery({
  name: 'findFree',
  right: 'wearers',
  input: freeForm,
  about: () => null,
  run: async (context, form): Promise<Result<readonly FreeSlot[]>> => {
    const { tx, caller, now, today, practice } = context;
    const first = form.from < today ? today : form.from;
    const hours = await findHours(tx, caller.practiceId, first);
    const days = Array.from({ length: LOOK_AHEAD_DAYS }, (_, ahead) => openDayOf(hours, addDays(first, ahead), practice.timeZone)).filter(
      (day): day is OpenDay => day !== null,
    );
    const taken = await listTaken(
      tx,
      caller.practiceId,
      boundsOf(first, practice.timeZone).from,
      boundsOf(addDays(first, LOOK_AHEAD_DAYS), practice.timeZone).to,
    );
    const { rooms, staff } = await bookable(context);
    return ok(
      nextFree(
        {
          minutes: { chair: form.chairMinutes, staff: form.staffMinutes },
          rooms: form.roomId === null ? rooms.map((r) => r.id) : [form.roomId],
          staff: form.staffId === null ? suitedTo(form.kind, staff).map((s) => s.id) : [form.staffId],
          ...(form.wearerId === null ? {} : { wearerId: form.wearerId }),
          from: Date.parse(now),
        },
        days,
        taken,
        OFFERED,
      ),
    );
  },
});
