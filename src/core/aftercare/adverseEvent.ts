import type { Fact } from '../record/fact';
import { addDays } from '../calendar/dates';
import type { IsoDate } from '../units';

/** What went wrong with an eye that wore a lens. Names as the field uses them. */
export const ADVERSE_EVENTS = [
  'microbialKeratitis',
  'infiltrativeKeratitis',
  'peripheralUlcer',
  'redEyeOvernight',
  'abrasion',
  'papillaryConjunctivitis',
  'solutionReaction',
  'tightLens',
  'tornLens',
  'other',
] as const;
export type AdverseEvent = (typeof ADVERSE_EVENTS)[number];

/** After these no lens goes back on until a prescriber has let it: the cornea or what lies on it was hurt. Source: common practice. */
const LENSES_OFF: readonly AdverseEvent[] = ['microbialKeratitis', 'infiltrativeKeratitis', 'peripheralUlcer', 'redEyeOvernight', 'abrasion', 'tightLens'];
/** Does the eye stay without a lens after it? @example keepsLensesOff('tornLens') → false */
export const keepsLensesOff = (event: AdverseEvent): boolean => LENSES_OFF.includes(event);

/** An event as it was recorded, with the lens it happened with. */
export interface AdverseEventFact extends Fact {
  readonly event: AdverseEvent;
  /** The lens worn when it happened; null where nobody can name it. */
  readonly lensId: string | null;
  readonly lot: string | null;
  readonly beganOn: IsoDate;
  readonly lensesOff: boolean;
  readonly note: string | null;
}

/** A prescriber let an eye wear lenses again. */
export interface ReturnToWearFact extends Fact {
  /** The event it ends, by the root of its chain. */
  readonly adverseEventId: string;
  readonly newLens: boolean;
  readonly newCase: boolean;
  readonly dropsOff: boolean;
  readonly aftercareOn: IsoDate;
}

/** Days within which an eye that went back into lenses is seen. Source: common practice. */
export const SEEN_WITHIN_DAYS = 7;

/** What of an eye bears on whether it may wear lenses again. */
export interface ReturnOf {
  /** Absolute stops of the wearer that are open. */
  readonly stopped: boolean;
  /** Stain graded at this visit, 0–4; undefined where nobody looked. */
  readonly staining: number | string | undefined;
  readonly dropsOff: boolean;
  readonly newLens: boolean;
  readonly newCase: boolean;
  /** The next appointment of the wearer; null for none. */
  readonly seenOn: IsoDate | null;
  readonly today: IsoDate;
}
export const RETURN_NEEDS = ['released', 'clearCornea', 'dropsOff', 'newLens', 'newCase', 'aftercareBooked'] as const;
export type ReturnNeed = (typeof RETURN_NEEDS)[number];

/**
 * What is still missing before an eye goes back into lenses: released, stain 0 today, drops off, a new lens and a new case,
 * aftercare booked within a week.
 * @example returnMissing({stopped: false, staining: 0, dropsOff: true, newLens: true, newCase: true, seenOn: '2026-12-04', today: '2026-11-29'}) → []
 * @source common practice
 */
export function returnMissing(of: ReturnOf): readonly ReturnNeed[] {
  const met: Readonly<Record<ReturnNeed, boolean>> = {
    released: !of.stopped,
    clearCornea: of.staining === 0,
    dropsOff: of.dropsOff,
    newLens: of.newLens,
    newCase: of.newCase,
    aftercareBooked: of.seenOn !== null && of.seenOn > of.today && of.seenOn <= addDays(of.today, SEEN_WITHIN_DAYS),
  };
  return RETURN_NEEDS.filter((need) => !met[need]);
}
