import { instantOf, millisecondsOf } from '../calendar/dates';
import type { IsoDate } from '../units';
import type { Minutes, Slot } from './appointment';
import { clashesOf, type TakenSlot } from './clashes';

const MINUTE = 60_000;
/** Appointments are offered on the quarter of an hour. */
const EVERY_MINUTES = 15;

/** A day on which the practice is open, from and to as milliseconds since the epoch. */
export interface OpenDay {
  readonly day: IsoDate;
  readonly opens: number;
  readonly closes: number;
}
export interface Wanted {
  readonly minutes: Minutes;
  /** Rooms and people that would do, best first. */
  readonly rooms: readonly string[];
  readonly staff: readonly string[];
  /** Who is seen: nobody is in two places at once. */
  readonly wearerId?: string;
  /** Not before, milliseconds since the epoch. */
  readonly from: number;
}
export interface FreeSlot extends Slot {
  readonly day: IsoDate;
  readonly roomId: string;
  readonly staffId: string;
}

/**
 * The next times at which a room is free for the wearer's minutes and a person for theirs, within the hours of each day, on
 * the quarter of an hour from opening.
 * @param taken appointments that take place
 * @param most how many are asked for
 */
export function nextFree(wanted: Wanted, days: readonly OpenDay[], taken: readonly TakenSlot[], most: number): FreeSlot[] {
  const found: FreeSlot[] = [];
  for (const { day, opens, closes } of days) {
    const near = taken.filter((t) => millisecondsOf(t.startsAt) < closes && millisecondsOf(t.startsAt) + t.chairMinutes * MINUTE > opens);
    for (let at = opens; at + wanted.minutes.chair * MINUTE <= closes; at += EVERY_MINUTES * MINUTE) {
      if (at < wanted.from) continue;
      const slot = freeAt(wanted, day, at, near);
      if (slot) found.push(slot);
      if (found.length === most) return found;
    }
  }
  return found;
}

/** The best room and person free at a moment. */
function freeAt({ minutes, rooms, staff, wearerId }: Wanted, day: IsoDate, at: number, near: readonly TakenSlot[]): FreeSlot | null {
  const times = { startsAt: instantOf(at), chairMinutes: minutes.chair, staffMinutes: minutes.staff };
  const isFree = (slot: Pick<Slot, 'roomId' | 'staffId'>): boolean => clashesOf({ ...times, ...slot, ...(wearerId ? { wearerId } : {}) }, near).length === 0;
  const roomId = rooms.find((room) => isFree({ roomId: room, staffId: null }));
  const staffId = staff.find((person) => isFree({ roomId: null, staffId: person }));
  return roomId === undefined || staffId === undefined ? null : { ...times, day, roomId, staffId };
}
