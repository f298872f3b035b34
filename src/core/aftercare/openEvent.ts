import { latest, type FactChain } from '../record/chains';
import type { Eye } from '../units';
import type { AdverseEventFact, ReturnToWearFact } from './adverseEvent';

/** The event for which an eye stays without a lens; null when none does. */
export function openEvent(events: readonly FactChain<AdverseEventFact>[], returns: readonly FactChain<ReturnToWearFact>[], eye: Eye) {
  return latest(events, (e) => e.eye === eye && e.lensesOff && !returns.some((r) => r.current?.adverseEventId === e.rootId));
}
