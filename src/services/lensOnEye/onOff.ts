import 'server-only';
import type { Eye, OnEyeExtra, OnEyeFact, VisitFacts } from '../../core';
import type { Context } from '../define';
import type { LockedVisit } from '../visit/lock';

/** A lens is vouched for: by whoever put it on, by the wearer's word, or by its box. */
export const confirm = ({ caller, now }: Context, taken: LockedVisit, lensOnEyeId: string, how: NonNullable<OnEyeExtra['how']>): void =>
  taken.hang({ table: 'lens_confirmation', row: { lensOnEyeId, practiceId: caller.practiceId, how, confirmedAt: now, confirmedBy: caller.personId } });

export const remove = ({ caller, now }: Context, taken: LockedVisit, lensOnEyeId: string): void =>
  taken.hang({ table: 'lens_removal', row: { lensOnEyeId, practiceId: caller.practiceId, takenOffAt: now, takenOffBy: caller.personId } });

/** A lens already on the eye comes off when another goes on. @returns lenses that were on it in this visit */
export function takeOffOthers(context: Context, taken: LockedVisit, { onEye, onEyeExtras }: VisitFacts, eye: Eye): OnEyeFact[] {
  const earlier: OnEyeFact[] = [];
  for (const chain of onEye) {
    if (chain.current?.eye !== eye) continue;
    earlier.push(chain.current);
    if (!onEyeExtras.find((e) => e.lensOnEyeId === chain.rootId)?.takenOffAt) remove(context, taken, chain.rootId);
  }
  return earlier;
}
