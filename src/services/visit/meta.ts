import 'server-only';
import type { Context } from '../define';
import type { LockedVisit } from './lock';

export const metaOf = (context: Context, taken: LockedVisit) => ({
  id: context.newId(),
  practiceId: context.caller.practiceId,
  wearerId: taken.visit.wearerId,
  visitId: taken.visit.id,
  visitVersion: taken.version,
  at: context.now,
  by: context.caller.personId,
});
