import type { VisitKind } from '../record/visitSteps';
import { may, type Role } from './roles';

/**
 * May somebody with these roles open, and close, a visit of this kind? A coordinator hands boxes over at a collection; every
 * other kind is clinical work.
 * @example mayOpenVisit(['coordinator'], 'aftercare') → false
 */
export const mayOpenVisit = (roles: readonly Role[], kind: VisitKind): boolean => may(roles, kind === 'collection' ? 'handOver' : 'clinicalWrite');
