import 'server-only';
import { may } from '../core';
import { unreachable } from '../lib/assert';
import type { Problem } from '../lib/outcome';
import type { AnyService, Caller } from './define';

/** Why somebody may not have a use case done; null when they may. */
export function refusalOf(service: AnyService, caller: Caller): Problem | null {
  switch (caller.kind) {
    case 'staff':
      return may(caller.roles, service.right) ? null : { kind: 'forbidden', why: service.right };
    case 'link':
      return service.links?.includes(caller.purpose) === true ? null : { kind: 'forbidden', why: service.right };
    default:
      return unreachable(caller);
  }
}

/** Does this caller's way lead to a lesson or a visit? Staff may look at every one of their practice, a link opens one. */
export function leadsTo(caller: Caller, subjectId: string): boolean {
  switch (caller.kind) {
    case 'staff':
      return true;
    case 'link':
      return caller.subjectId === subjectId;
    default:
      return unreachable(caller);
  }
}

/** Who did it, for the audit and for a press's own key. */
export function actorOf(caller: Caller): { readonly personId: string | null; readonly linkId: string | null } {
  switch (caller.kind) {
    case 'staff':
      return { personId: caller.personId, linkId: null };
    case 'link':
      return { personId: null, linkId: caller.linkId };
    default:
      return unreachable(caller);
  }
}
