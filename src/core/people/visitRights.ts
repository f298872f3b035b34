import type { VisitKind } from '../record/visitSteps';
import { may, type Role } from './roles';

/** Boxes that come or go, and a new order of what is worn. */
const NOT_CLINICAL: readonly VisitKind[] = ['collection', 'reorder'];

/**
 * May somebody with these roles open, and close, a visit of this kind? A coordinator hands boxes over at a collection and
 * takes a reorder; every other kind is clinical work.
 * @example mayOpenVisit(['coordinator'], 'longFollowUp') → false
 */
export const mayOpenVisit = (roles: readonly Role[], kind: VisitKind): boolean => may(roles, NOT_CLINICAL.includes(kind) ? 'handOver' : 'clinicalWrite');
