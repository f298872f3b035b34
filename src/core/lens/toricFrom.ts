import type { Dioptres } from '../units';

/** Cylinder at the cornea from which a toric is asked for, D. Common practice. */
export const TORIC_FROM: Dioptres = 0.75;
