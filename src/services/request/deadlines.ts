import 'server-only';
import { businessDeadline, calendarsOf, RULE_PROFILES, type IsoDate, type IsoInstant, type PracticeSettings, type RuleProfile } from '../../core';
import type { Db } from '../../db/client';
import { findHours } from '../../db/openingHours';

/** Whose rules and hours count. */
export interface DeadlineOf {
  readonly practiceId: string;
  readonly timeZone: string;
  readonly settings: Pick<PracticeSettings, 'ruleProfile'>;
}

/** The deadlines of what arrived at a moment, by the practice's profile and hours as they are now. @param hours of the profile: to answer, or to hand over a copy */
export async function deadlines(
  sql: Db,
  of: DeadlineOf,
  hours: keyof Pick<RuleProfile, 'answerHours' | 'agentHours'>,
  receivedAt: IsoInstant,
  receivedOn: IsoDate,
) {
  const profile = RULE_PROFILES[of.settings.ruleProfile];
  const { usual, earliest } = calendarsOf(profile, await findHours(sql, of.practiceId, receivedOn), of.timeZone);
  return {
    profile: of.settings.ruleProfile,
    usualAt: businessDeadline(receivedAt, profile[hours], usual),
    earliestAt: businessDeadline(receivedAt, profile[hours], earliest),
  };
}
