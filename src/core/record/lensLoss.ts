import type { Loss } from '../supply/runway';
import type { Eye, IsoDate, IsoInstant } from '../units';

/** Why a lens at home is worn no more before its time. `contaminated`: fell into the sink, the street, water. */
export const LOSS_REASONS = ['lost', 'torn', 'contaminated', 'uncomfortable'] as const;
export type LossReason = (typeof LOSS_REASONS)[number];

/** Lenses of one eye that a wearer says are gone; those told in error are none. */
export interface LensLoss {
  readonly id: string;
  readonly eye: Eye;
  readonly lenses: number;
  readonly why: LossReason;
  readonly lostOn: IsoDate;
  readonly toldAt: IsoInstant;
  readonly toldToName: string;
}

/** What one eye lost, as a runway takes it. */
export const lossesOf = (losses: readonly LensLoss[], eye: Eye): readonly Loss[] =>
  losses.flatMap((l) => (l.eye === eye ? [{ on: l.lostOn, lenses: l.lenses }] : []));
