import type { AdverseEventFact, ReturnToWearFact } from '../aftercare/adverseEvent';
import type { Evidence } from '../advice/conditions';
import type { RecordedAnswer } from '../advice/healthState';
import type { Kind } from '../advice/recommend';
import type { StopEnding } from '../advice/stopEndings';
import type { FactChain } from './chains';
import type { Findings } from '../advice/signs';
import type { AftercareAnswerFact, AftercareEndFact, CornealLesionFact, RecordedFinding } from './visitFacts';
import type { Eye } from '../units';

export interface StopRow {
  readonly id: string;
  readonly visitId: string;
  readonly rule: string;
  readonly eyes: readonly Eye[];
  readonly evidence: readonly Evidence[];
  readonly openedAt: string;
  readonly openedByName: string;
  readonly endedAt: string | null;
  readonly endedHow: StopEnding | null;
  readonly endedByName: string | null;
  readonly endedReason: string | null;
}

export interface OverrideRow {
  readonly id: string;
  readonly visitId: string;
  readonly rule: string;
  readonly evidenceKey: string;
  readonly reason: string;
  readonly overriddenAt: string;
  readonly overriddenByName: string;
}

export interface DecisionRow {
  readonly id: string;
  readonly visitId: string;
  readonly recommended: Kind | null;
  readonly chosen: Kind;
  readonly asRecommended: boolean;
  readonly reason: string | null;
  readonly ruleVersion: string;
  readonly decidedAt: string;
  readonly decidedByName: string;
}

export const REFERRAL_STEPS = ['lensOff', 'phoned', 'printed', 'leftWithLetter', 'calledNextDay'] as const;
export type ReferralStep = (typeof REFERRAL_STEPS)[number];
export interface ReferralRow {
  readonly id: string;
  readonly stopId: string;
  readonly visitId: string;
  readonly addressedTo: string;
  readonly telephone: string;
  readonly openedAt: string;
  readonly openedByName: string;
  readonly steps: readonly { readonly step: ReferralStep; readonly at: string; readonly by: string }[];
}

/** What was asked, looked at, stopped, passed and decided. Everything here is appended. */

export interface HistoryAnswerRow extends RecordedAnswer {
  /** Read back to the wearer and confirmed, rather than asked openly. */
  readonly readBack: boolean;
  readonly recordedAt: string;
  readonly recordedByName: string;
  readonly acknowledgedByName: string | null;
}

export interface PictureRow {
  readonly id: string;
  readonly visitId: string;
  readonly eye: Eye;
  readonly title: string;
  readonly width: number;
  readonly height: number;
  readonly placeRemoved: boolean;
  readonly recordedAt: string;
  readonly recordedByName: string;
}

/**
 * History and eye health as they count in a visit: what was recorded in it, and of the visits before it what is newest
 * (answers by question, findings by sign and eye). Never every row of every visit.
 */
export interface HealthFile {
  readonly answers: readonly HistoryAnswerRow[];
  readonly findings: readonly FactChain<RecordedFinding>[];
  /** Drawn on the corneas at this visit. */
  readonly lesions: readonly FactChain<CornealLesionFact>[];
  /** Of any visit. */
  readonly adverseEvents: readonly FactChain<AdverseEventFact>[];
  readonly returns: readonly FactChain<ReturnToWearFact>[];
  /** Asked at this visit, and of those before it what is newest of each question and eye. */
  readonly aftercare: readonly FactChain<AftercareAnswerFact>[];
  /** How aftercare ended, at this visit. */
  readonly aftercareEnds: readonly FactChain<AftercareEndFact>[];
  readonly stops: readonly StopRow[];
  readonly overrides: readonly OverrideRow[];
  readonly decisions: readonly DecisionRow[];
  /** How lenses were decided to be worn last before this visit; null where nobody decided it. */
  readonly wearBefore: Kind['wear'] | null;
  readonly referrals: readonly ReferralRow[];
  readonly pictures: readonly PictureRow[];
  /** The lowest figure of each sign at any visit before this one. */
  readonly lowest: Readonly<Record<Eye, Findings>>;
  /** The flattest that the steeper meridian was within about a year before this visit, mm; null where it was not measured. */
  readonly flattestSteep: Readonly<Record<Eye, number | null>>;
  /** Staff whose grades count as a prescriber's. */
  readonly prescribers: readonly string[];
  /** How far the refraction has moved towards minus since the one before, D; null while there is none to compare. */
  readonly myopicShift: number | null;
}
