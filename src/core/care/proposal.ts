import type { Answers } from '../advice/answers';
import { TRADE, type Source } from '../advice/source';
import type { CareSystem } from './careSystem';

/** Why a care system was chosen. */
export const CARE_REASONS = ['first', 'sensitivity', 'allergy', 'deposits', 'keepsOwn', 'other'] as const;
export type CareReason = (typeof CARE_REASONS)[number];

/** What bears on the choice of a care system. */
export interface CareBearing {
  readonly answers: Answers;
  /** Troubles said at the last aftercare, of either eye. */
  readonly troubles: readonly string[];
  /** Deposits were seen on a lens at this visit. */
  readonly deposits: boolean;
}
export interface CareProposal {
  readonly system: CareSystem;
  readonly reason: CareReason;
  readonly source: Source;
}

const many = (answers: Answers, id: 'allergy' | 'whyChange'): readonly string[] => {
  const value = answers[id]?.value;
  return Array.isArray(value) ? (value as readonly string[]) : [];
};

/**
 * The kind of care system to begin with: multipurpose first; peroxide for a solution that is not borne, for sensitive eyes and for deposits.
 * @example proposeCare({answers: {}, troubles: [], deposits: false}).system → 'multipurpose'
 * @source common practice
 */
export function proposeCare({ answers, troubles, deposits }: CareBearing): CareProposal {
  const peroxide = (reason: CareReason): CareProposal => ({ system: 'peroxide', reason, source: TRADE });
  if (many(answers, 'allergy').includes('solution')) return peroxide('allergy');
  if (troubles.includes('sting') || troubles.includes('itch') || many(answers, 'allergy').includes('eyes')) return peroxide('sensitivity');
  if (deposits || many(answers, 'whyChange').includes('deposits')) return peroxide('deposits');
  return { system: 'multipurpose', reason: 'first', source: TRADE };
}
