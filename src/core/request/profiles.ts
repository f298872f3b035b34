import { weekdayOf } from '../calendar/dates';
import { openingOn, type PracticeHours } from '../diary/openingHours';
import { OWN, type Source } from '../advice/source';
import type { IsoDate } from '../units';
import type { BusinessCalendar, DayWindow } from './businessHours';
import { federalHolidayOn } from './federalHolidays';

/** A set of rules for prescriptions and those who ask for them; the practice chooses one. */
export interface RuleProfile {
  /** Hours within which a seller's request is answered. */
  readonly answerHours: number;
  /** Hours within which a copy goes to whoever acts for the wearer. */
  readonly agentHours: number;
  /** A prescription runs so many years at least, unless a medical reason is kept; 0 where the practice decides. */
  readonly leastYears: number;
  /** What silence counts as. */
  readonly silence: 'verified' | 'nothing';
  /** Whose hours count: a fixed window on working days, or the practice's own. */
  readonly window: DayWindow | 'practice';
  /** May the practice's hours on a Saturday count as well, as the seller chooses? */
  readonly saturday: 'sellersChoice' | 'asOpen';
  readonly source: Source;
}

const US: Source = { mark: 'P', text: '16 CFR 315, from memory' };
/** The profiles, as data. Local codes prevail over each of them. */
export const RULE_PROFILES = {
  generic: { answerHours: 8, agentHours: 40, leastYears: 0, silence: 'nothing', window: 'practice', saturday: 'asOpen', source: OWN },
  us: {
    answerHours: 8,
    agentHours: 40,
    leastYears: 1,
    silence: 'verified',
    window: { fromMinute: 9 * 60, toMinute: 17 * 60 },
    saturday: 'sellersChoice',
    source: US,
  },
} as const satisfies Readonly<Record<string, RuleProfile>>;
export type RuleProfileId = keyof typeof RULE_PROFILES;

const SATURDAY = 6;
const windowOf = (hours: PracticeHours, day: IsoDate): DayWindow | null => {
  const opening = openingOn(hours, day);
  return opening && { fromMinute: opening.opensMinute, toMinute: opening.closesMinute };
};

/**
 * When hours count under a profile. `usual`: as the rules read; `earliest`: as a seller could count them to the practice's loss,
 * Saturdays included where the practice is open. A deadline is shown by the earliest.
 * @param hours when the practice is open
 * @param timeZone of the practice, IANA
 */
export function calendarsOf(
  profile: RuleProfile,
  hours: PracticeHours,
  timeZone: string,
): { readonly usual: BusinessCalendar; readonly earliest: BusinessCalendar } {
  const { window } = profile;
  if (window === 'practice') {
    const own = { timeZone, windowOn: (day: IsoDate) => windowOf(hours, day) };
    return { usual: own, earliest: own };
  }
  const workdays = (day: IsoDate): DayWindow | null => (weekdayOf(day) < SATURDAY && federalHolidayOn(day) === null ? window : null);
  const saturdays = (day: IsoDate): DayWindow | null =>
    weekdayOf(day) === SATURDAY && profile.saturday === 'sellersChoice' && federalHolidayOn(day) === null ? windowOf(hours, day) : null;
  return { usual: { timeZone, windowOn: workdays }, earliest: { timeZone, windowOn: (day) => workdays(day) ?? saturdays(day) } };
}
