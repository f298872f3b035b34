import 'server-only';
import { addYears, clashesOf, closedNameOf, formatMinuteOfDay, openingOn, outsideHours, type ClashKind, type IsoDate, type Slot } from '../../core';
import { holdDiary, listTaken } from '../../db/appointment';
import { findHours } from '../../db/openingHours';
import { listRooms } from '../../db/room';
import { findStaff } from '../../db/staff';
import { err, invalid, ok, type FieldProblem, type Result } from '../../lib/outcome';
import type { Context } from '../define';
import { boundsOf, clockOf, momentOf } from './moments';

/** A place in the diary as it was asked for. */
export interface AskedPlace {
  readonly day: string;
  /** Minutes from midnight. */
  readonly time: number;
  readonly chairMinutes: number;
  readonly staffMinutes: number;
  readonly roomId: string | null;
  readonly staffId: string | null;
  readonly despite: string | null;
}

const FIELD_OF: Readonly<Record<ClashKind, string>> = { room: 'roomId', staff: 'staffId', wearer: 'time' };

/** Rooms and people that are not, or no longer, here. */
async function unknownPlace(context: Context, place: AskedPlace): Promise<Result<never> | null> {
  const { tx, caller } = context;
  if (place.roomId !== null) {
    const room = (await listRooms(tx, caller.practiceId)).find((r) => r.id === place.roomId);
    if (!room || room.endedAt !== null) return invalid('roomId', 'roomEnded');
  }
  if (place.staffId !== null) {
    const staff = await findStaff(tx, caller.practiceId, place.staffId);
    if (!staff || staff.endedAt !== null) return invalid('staffId', 'staffEnded');
  }
  return null;
}

/**
 * Takes a place in the diary: its room and person must be of the practice, its day no past one. A room, a person or a wearer that
 * is taken, and a time outside the hours, are said, and taken all the same where a reason was given. The diary is held to the
 * end of the transaction, so that two people never take the same place unseen.
 * @param who which appointment it is, where it exists, and whose
 */
export async function takePlace(context: Context, who: { readonly id?: string; readonly wearerId: string }, place: AskedPlace): Promise<Result<Slot>> {
  const { tx, caller, today, practice } = context;
  if (place.day < today) return invalid('day', 'dayPast', { day: place.day });
  if (place.day > addYears(today, 2)) return invalid('day', 'dayFar', { day: place.day });
  await holdDiary(tx, caller.practiceId);
  const unknown = await unknownPlace(context, place);
  if (unknown) return unknown;
  const slot: Slot = {
    roomId: place.roomId,
    staffId: place.staffId,
    startsAt: momentOf(place.day, place.time, practice.timeZone),
    chairMinutes: place.chairMinutes,
    staffMinutes: place.staffMinutes,
  };
  if (place.despite !== null) return ok(slot);
  const against = await whatSpeaksAgainst(context, who, slot, place);
  return against.length > 0 ? err({ kind: 'invalid', fields: against }) : ok(slot);
}

/** What a place in the diary meets that is taken already. The diary is held (`holdDiary`). */
export async function takenProblems(
  context: Context,
  who: { readonly id?: string; readonly wearerId: string },
  day: IsoDate,
  slot: Slot,
): Promise<FieldProblem[]> {
  const { tx, caller, practice } = context;
  const { from, to } = boundsOf(day, practice.timeZone);
  return clashesOf({ ...slot, ...who }, await listTaken(tx, caller.practiceId, from, to)).map(({ what, taken }) => ({
    path: [FIELD_OF[what]],
    code: `${what}Taken`,
    data: { name: taken.name, time: formatMinuteOfDay(clockOf(taken.startsAt, practice.timeZone).minute) },
  }));
}

async function whatSpeaksAgainst(
  context: Context,
  who: { readonly id?: string; readonly wearerId: string },
  slot: Slot,
  { day, time, chairMinutes }: AskedPlace,
): Promise<FieldProblem[]> {
  const { tx, caller } = context;
  const hours = await findHours(tx, caller.practiceId, day);
  const opening = openingOn(hours, day);
  const closed = closedNameOf(hours, day);
  const outside = outsideHours(opening, time, chairMinutes);
  return [
    ...(closed !== null ? [{ path: ['day'], code: 'practiceClosed', data: { name: closed } }] : []),
    ...(closed === null && opening === null ? [{ path: ['day'], code: 'weekdayClosed' }] : []),
    ...(opening !== null && outside
      ? [{ path: ['time'], code: 'outsideHours', data: { opens: formatMinuteOfDay(opening.opensMinute), closes: formatMinuteOfDay(opening.closesMinute) } }]
      : []),
    ...(await takenProblems(context, who, day, slot)),
  ];
}
