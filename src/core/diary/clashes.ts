import { millisecondsOf } from '../calendar/dates';
import type { Slot } from './appointment';

const MINUTE = 60_000;

/** What an appointment takes that another one has already. */
export type ClashKind = 'room' | 'staff' | 'wearer';
export interface Clash<Taken> {
  readonly what: ClashKind;
  readonly taken: Taken;
}

/** A slot that somebody has. */
export interface TakenSlot extends Slot {
  readonly id: string;
  readonly wearerId: string;
}

/** Do two stretches of time overlap? One may begin where the other ends. @param aMinutes, bMinutes minutes from their starts */
export function timesOverlap(aFrom: number, aMinutes: number, bFrom: number, bMinutes: number): boolean {
  return aMinutes > 0 && bMinutes > 0 && aFrom < bFrom + bMinutes * MINUTE && bFrom < aFrom + aMinutes * MINUTE;
}

/** Of two slots: which of room, person and wearer both would take at once. */
function between(slot: Slot & { readonly wearerId?: string }, other: TakenSlot): ClashKind[] {
  const from = millisecondsOf(slot.startsAt);
  const otherFrom = millisecondsOf(other.startsAt);
  const chairs = timesOverlap(from, slot.chairMinutes, otherFrom, other.chairMinutes);
  const clashes: ClashKind[] = [];
  if (chairs && slot.roomId !== null && slot.roomId === other.roomId) clashes.push('room');
  if (slot.staffId !== null && slot.staffId === other.staffId && timesOverlap(from, slot.staffMinutes, otherFrom, other.staffMinutes)) clashes.push('staff');
  if (chairs && slot.wearerId === other.wearerId) clashes.push('wearer');
  return clashes;
}

/**
 * What an appointment would take that others have: the room for the wearer's minutes, the person for theirs, the wearer for
 * both. An appointment never clashes with itself.
 * @param others appointments that take place
 */
export function clashesOf<Taken extends TakenSlot>(
  slot: Slot & { readonly id?: string; readonly wearerId?: string },
  others: readonly Taken[],
): Clash<Taken>[] {
  return others.filter((other) => other.id !== slot.id).flatMap((taken) => between(slot, taken).map((what) => ({ what, taken })));
}
