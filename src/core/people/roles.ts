/** What a person of a practice may do. Roles add up. */
export type Role = 'prescriber' | 'technician' | 'coordinator' | 'admin';
export const ROLES: readonly Role[] = ['prescriber', 'technician', 'coordinator', 'admin'];

/** Groups of commands that services ask for. */
export type Right = 'read' | 'clinicalRead' | 'clinicalWrite' | 'sign' | 'wearers' | 'orders' | 'handOver' | 'stock' | 'staff' | 'settings' | 'merge';

/**
 * The roles matrix. Whoever works with wearers reads their records (and is audited); prescriber: all clinical writes and signing; technician:
 * measurements, trials, lessons; coordinator: wearers and orders; admin: staff, settings, and two records of one person made one, with no clinical right by itself. The trial drawer is everybody's: whoever opens
 * it sees what is expired.
 */
const MATRIX: Readonly<Record<Right, readonly Role[]>> = {
  read: ROLES,
  clinicalRead: ['prescriber', 'technician', 'coordinator'],
  clinicalWrite: ['prescriber', 'technician'],
  sign: ['prescriber'],
  wearers: ['prescriber', 'technician', 'coordinator'],
  orders: ['prescriber', 'coordinator'],
  handOver: ['prescriber', 'technician', 'coordinator'],
  stock: ROLES,
  staff: ['admin'],
  settings: ['admin'],
  merge: ['admin'],
};

/** May somebody with these roles do this? @example may(['admin'], 'sign') → false */
export const may = (roles: readonly Role[], right: Right): boolean => MATRIX[right].some((role) => roles.includes(role));
