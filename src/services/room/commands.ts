import 'server-only';
import { insertClosedDay, insertOpeningHours } from '../../db/openingHours';
import { insertRoom, listRooms, updateRoom } from '../../db/room';
import { err, invalid, notFound, ok, type Result } from '../../lib/outcome';
import { addRoomForm, changeRoomForm, closedDayForm, openingHoursForm } from '../../schema/room';
import { defineCommand, type Context } from '../define';

const recorded = (context: Context) => ({ id: context.newId(), practiceId: context.caller.practiceId, at: context.now, by: context.caller.personId });

export const addRoom = defineCommand({
  name: 'addRoom',
  right: 'settings',
  input: addRoomForm,
  about: (_form, out: { roomId: string }) => ({ subjectKind: 'room', subjectId: out.roomId }),
  run: async (context, form): Promise<Result<{ roomId: string }>> => {
    const { tx, caller } = context;
    const rooms = await listRooms(tx, caller.practiceId);
    const id = context.newId();
    const sortOrder = Math.min(999, Math.max(-1, ...rooms.map((r) => r.sortOrder)) + 1);
    const made = await insertRoom(tx, { id, practiceId: caller.practiceId, name: form.name, sortOrder });
    return made ? ok({ roomId: id }) : invalid('name', 'roomExists', { name: form.name });
  },
});

export const changeRoom = defineCommand({
  name: 'changeRoom',
  right: 'settings',
  input: changeRoomForm,
  about: (form) => ({ subjectKind: 'room', subjectId: form.roomId }),
  run: async ({ tx, caller, now }, form): Promise<Result<null>> => {
    const { roomId: id, version, name, sortOrder, ended } = form;
    if (!(await listRooms(tx, caller.practiceId)).some((room) => room.id === id)) return notFound('room');
    const done = await updateRoom(tx, caller.practiceId, { id, version, name, sortOrder, endedAt: ended ? now : null });
    if (done === 'taken') return invalid('name', 'roomExists', { name });
    return done === 'done' ? ok(null) : err({ kind: 'conflict', what: 'room', differs: [] });
  },
});

export const setOpeningHours = defineCommand({
  name: 'setOpeningHours',
  right: 'settings',
  input: openingHoursForm,
  about: () => null,
  run: async (context, form): Promise<Result<null>> => {
    const opening = form.closed ? null : { opensMinute: form.opens, closesMinute: form.closes };
    await insertOpeningHours(context.tx, form.weekday, opening, recorded(context));
    return ok(null);
  },
});

export const setClosedDay = defineCommand({
  name: 'setClosedDay',
  right: 'settings',
  input: closedDayForm,
  about: () => null,
  run: async (context, form): Promise<Result<null>> => {
    if (form.day < context.today) return invalid('day', 'dayPast', { day: form.day });
    await insertClosedDay(context.tx, form, recorded(context));
    return ok(null);
  },
});
