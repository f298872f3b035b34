import 'server-only';
import { takesPlace, type VisitKind } from '../../core';
import { insertAppointment, listAppointmentsOf } from '../../db/appointment';
import { invalid, ok, type Result } from '../../lib/outcome';
import type { Context } from '../define';
import { takePlace, type AskedPlace } from './place';

/** Where and when somebody is seen next; null: not asked for by this press. */
export type NextPlace = (AskedPlace & { readonly kind: VisitKind }) | null;

/** Coming appointments of a wearer that take place, soonest first. */
export const coming = async ({ tx, caller, now }: Context, wearerId: string) =>
  (await listAppointmentsOf(tx, caller.practiceId, wearerId, now)).filter((a) => takesPlace(a.state));

/**
 * Books the next visit, so that nobody leaves without one: the one asked for, else the one that is booked already, else it is said why not.
 * @param needed false: somebody who ends lens wear needs none
 * @returns the appointment; null where none is booked
 */
export async function bookNext(
  context: Context,
  wearerId: string,
  next: NextPlace,
  unbookedReason: string | null,
  needed = true,
): Promise<Result<string | null>> {
  const { tx, caller, now } = context;
  if (next === null) {
    const [booked] = await coming(context, wearerId);
    if (booked) return ok(booked.appointmentId);
    return !needed || unbookedReason !== null ? ok(null) : invalid('unbookedReason', 'bookOrSayWhy');
  }
  const slot = await takePlace(context, { wearerId }, next);
  if (!slot.ok) return slot;
  const id = context.newId();
  const made = { ...slot.value, id, practiceId: caller.practiceId, wearerId, kind: next.kind, note: null };
  await insertAppointment(tx, made, { reason: next.despite, at: now, by: caller.personId });
  return ok(id);
}
