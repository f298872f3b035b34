import type { Eye, IsoInstant } from '../units';
import type { Appended } from './chains';

/** Columns that every clinical fact shows; `eye` null for one that is of no single eye. */
export interface AnyFact extends Appended {
  readonly eye: Eye | null;
  readonly visitId: string;
  readonly observedAt: IsoInstant;
  readonly recordedAt: IsoInstant;
  readonly recordedBy: string;
  readonly recordedByName: string;
  readonly reason: string | null;
}
/** A fact of one eye. */
export interface Fact extends AnyFact {
  readonly eye: Eye;
}

/** The reason of a correction that only took back what its author had recorded seconds before; nobody types it. */
export const UNDONE = '#undone';
