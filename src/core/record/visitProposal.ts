import { OWN, TRADE, type Source } from '../advice/source';
import { addDays, addMonths, dayIn, daysBetween } from '../calendar/dates';
import type { PracticeSettings } from '../practiceSettings';
import { inForce } from '../supply/purpose';
import { EYES, type IsoDate } from '../units';
import type { WearerFile } from './wearerFile';
import { provenance } from './wornNow';
import type { VisitKind } from './visitSteps';

/** Days after a fit within which a simple follow-up costs nothing. @source common practice */
export const FOLLOW_UP_DAYS = 90;
/** Days before the end of a prescription from which on the annual visit is due: our own choice. */
export const DUE_DAYS = 60;

/** What a kind of visit is proposed from. */
export interface ProposalOf {
  readonly today: IsoDate;
  /** A red-flag symptom was reported and nobody has looked yet, or an absolute stop stands. */
  readonly redEye: boolean;
  /** Is there a lens on record that this wearer may be wearing? */
  readonly wears: boolean;
  /** Day of the last first fit or refit; null for none here. */
  readonly fittedOn: IsoDate | null;
  /** Toric or multifocal lenses, or lenses slept in: they take longer to follow up. */
  readonly complex: boolean;
  /** The last day of the prescription in force; null for none. */
  readonly expiresOn: IsoDate | null;
  /** Day of the last full examination, here or elsewhere; null where nobody knows of one. */
  readonly examinedOn: IsoDate | null;
}
export interface VisitProposal {
  readonly kind: VisitKind;
  /** Why: a code for its words, and the figures in them. */
  readonly because: 'redEye' | 'nothingWorn' | 'fittedSimple' | 'fittedComplex' | 'annualExamined' | 'annual' | 'inForce';
  readonly data: Readonly<Record<string, string | number>>;
  readonly source: Source;
}

/**
 * The kind of visit that is proposed; a person decides.
 * @param months for how long a full examination counts
 * @example proposeVisit({ today: '2026-11-24', redEye: false, wears: false, fittedOn: null, complex: false, expiresOn: null, examinedOn: null }, 12).kind → 'firstFit'
 * @source common practice: short follow-up of a straight lens within 90 days, long of a complex one, lens-only annual where the eyes were examined within a set time
 */
export function proposeVisit(of: ProposalOf, months: number): VisitProposal {
  const { today, fittedOn, expiresOn, examinedOn } = of;
  if (of.redEye) return { kind: 'redEye', because: 'redEye', data: {}, source: TRADE };
  if (!of.wears) return { kind: 'firstFit', because: 'nothingWorn', data: {}, source: TRADE };
  const due = expiresOn === null || daysBetween(today, expiresOn) <= DUE_DAYS;
  const fittedFor = fittedOn === null ? null : daysBetween(fittedOn, today);
  if (fittedFor !== null && fittedFor <= FOLLOW_UP_DAYS)
    return {
      kind: of.complex ? 'longFollowUp' : 'shortFollowUp',
      because: of.complex ? 'fittedComplex' : 'fittedSimple',
      data: { days: fittedFor, within: FOLLOW_UP_DAYS },
      source: TRADE,
    };
  if (!due) return { kind: 'longFollowUp', because: 'inForce', data: { expires: expiresOn }, source: OWN };
  const examined = examinedOn !== null && addMonths(examinedOn, months) >= today;
  return examined
    ? { kind: 'lensAnnual', because: 'annualExamined', data: { examined: examinedOn, until: addMonths(examinedOn, months) }, source: TRADE }
    : { kind: 'fullAnnual', because: 'annual', data: { from: addDays(expiresOn ?? today, -DUE_DAYS) }, source: TRADE };
}

/** Kinds of visit in which an eye is examined whole. */
const EXAMINES: readonly VisitKind[] = ['firstFit', 'fullAnnual'];
/** Kinds of visit in which a lens is fitted. */
const FITS: readonly VisitKind[] = ['firstFit', 'refit'];
const latestOf = (days: readonly (IsoDate | null | undefined)[]): IsoDate | null =>
  days
    .flatMap((day) => day ?? [])
    .sort()
    .at(-1) ?? null;

/** What a wearer's file says of it. @param timeZone of the practice, IANA */
export function proposalOf(file: WearerFile, today: IsoDate, timeZone: string): ProposalOf {
  const dayOf = (kind: VisitKind): IsoDate | null => {
    const at = file.newestOf[kind];
    return at === undefined ? null : dayIn(at, timeZone);
  };
  const worn = EYES.map((eye) => provenance(file, eye).worn?.lensId).map((id) => (id === undefined ? undefined : file.lenses[id]));
  return {
    today,
    redEye: file.stoppedSince !== null || file.alertSince !== null,
    wears: worn.some((lens) => lens !== undefined),
    fittedOn: latestOf(FITS.map(dayOf)),
    complex: worn.some((lens) => lens !== undefined && lens.geometry !== 'sphere'),
    expiresOn: latestOf(inForce(file.prescriptions).map((p) => p.expiresOn)),
    examinedOn: latestOf([...EXAMINES.map(dayOf), file.examinedElsewhere?.examinedOn]),
  };
}

/** What each kind of visit costs by the settings of the practice; kinds that are not named cost nothing. */
const FEE_OF: Readonly<Partial<Record<VisitKind, keyof PracticeSettings>>> = {
  firstFit: 'fitFee',
  refit: 'refitFee',
  fullAnnual: 'annualFee',
  lensAnnual: 'lensAnnualFee',
  longFollowUp: 'followUpFee',
  redEye: 'redEyeFee',
};
/**
 * The fee proposed for a kind of visit, in the practice's money.
 * @example feeOf('shortFollowUp', DEFAULT_SETTINGS) → 0
 * @source a short follow-up within 90 days of a fit costs nothing: common practice
 */
export const feeOf = (kind: VisitKind, settings: PracticeSettings): number => {
  const setting = FEE_OF[kind];
  return setting === undefined ? 0 : Number(settings[setting]);
};
