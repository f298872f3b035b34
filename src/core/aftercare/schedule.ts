import { OWN, TRADE, type Source } from '../advice/source';
import { addDays } from '../calendar/dates';
import type { IsoDate } from '../units';

/** How an aftercare ends: these lenses go on, something about them changes, or lens wear stops. */
export const AFTERCARE_OUTCOMES = ['keep', 'change', 'stop'] as const;
export type AftercareOutcome = (typeof AFTERCARE_OUTCOMES)[number];

/** Which visit of the schedule is next. */
export type AftercareDue = 'morningAfter' | 'nightsWeek' | 'nightsMonth' | 'nightsQuarter' | 'week' | 'twoWeeks' | 'threeMonths' | 'halfYear';
export interface NextAftercare {
  readonly on: IsoDate;
  readonly due: AftercareDue;
  readonly source: Source;
}

/** What the schedule runs from. */
export interface ScheduleOf {
  readonly today: IsoDate;
  readonly outcome: Exclude<AftercareOutcome, 'stop'>;
  /** Since when these lenses are worn; null counts as from today. */
  readonly since: IsoDate | null;
  /** Lenses that are used again, or a complex fit: a week; else two weeks. */
  readonly reusable: boolean;
  readonly complex: boolean;
  /** The first night that they were slept in; null by day only, or before it. */
  readonly firstNight: IsoDate | null;
}

interface Milestone {
  readonly due: AftercareDue;
  readonly days: number;
  readonly source: Source;
}
/** Overnight wearers are seen the morning after the first night, at a week, at a month, then every three months. Source: common practice. */
const NIGHTS: readonly Milestone[] = [
  { due: 'morningAfter', days: 1, source: TRADE },
  { due: 'nightsWeek', days: 7, source: TRADE },
  { due: 'nightsMonth', days: 30, source: TRADE },
];
const NIGHTS_AFTER: Milestone = { due: 'nightsQuarter', days: 91, source: TRADE };
/** By day: a week or two, within three months, then twice a year, the shorter of "every 6 to 12 months". */
const firstByDay = (of: ScheduleOf): Milestone =>
  of.reusable || of.complex ? { due: 'week', days: 7, source: TRADE } : { due: 'twoWeeks', days: 14, source: TRADE };
const QUARTER: Milestone = { due: 'threeMonths', days: 91, source: TRADE };
const HALF_YEAR: Milestone = { due: 'halfYear', days: 182, source: OWN };

/** A visit this many days before its day counts as that visit. Our own choice. */
const EARLY_DAYS = 3;

/**
 * When the wearer is to be seen next. A change begins the schedule again from today.
 * @example nextAftercare({today: '2026-12-08', outcome: 'keep', since: '2026-12-01', reusable: true, complex: false, firstNight: null}).on → '2027-03-02'
 * @example nextAftercare({today: '2026-12-01', outcome: 'keep', since: '2026-11-20', reusable: true, complex: false, firstNight: '2026-12-01'}).due → 'morningAfter'
 * @source 1 or 2 weeks, 1 to 3 months, then every 6 to 12 months; overnight: morning after, 1 week, 1 month, every 3 months: common practice
 */
export function nextAftercare(of: ScheduleOf): NextAftercare {
  const nights = of.firstNight !== null;
  const from = nights && of.firstNight !== null ? of.firstNight : of.outcome === 'change' ? of.today : (of.since ?? of.today);
  const once = nights ? NIGHTS : [firstByDay(of), QUARTER];
  const open = once.find((m) => (m.due === 'morningAfter' ? addDays(from, m.days) > of.today : addDays(from, m.days - EARLY_DAYS) > of.today));
  if (open) return { on: addDays(from, open.days), due: open.due, source: open.source };
  const after = nights ? NIGHTS_AFTER : HALF_YEAR;
  return { on: addDays(of.today, after.days), due: after.due, source: after.source };
}
