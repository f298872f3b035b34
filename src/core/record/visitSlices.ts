import type { HandOverLines } from '../advice/handOverLines';
import type { HealthState } from '../advice/healthState';
import type { DrawerCount } from '../lens/listOf';
import type { InstrumentScale } from '../rotation/instrument';
import type { KnownTurn } from '../rotation/knownTurn';
import type { ScenarioAnswer } from '../teaching/exercises';
import type { Eye } from '../units';
import type { FactChain } from './chains';
import type { HealthFile } from './healthFile';
import type { LensRow } from './lens';
import type { LensLoss } from './lensLoss';
import type { LessonRow } from './lesson';
import type { Order } from './order';
import type { SetLens } from './setLens';
import type { Prescription } from './prescription';
import type { StepAnswers } from './stepAnswers';
import type { VisitDecision, VisitRow } from './visit';
import type {
  AttemptFact,
  CareSystemFact,
  HandOverFact,
  LessonSightFact,
  LessonTurnFact,
  LessonInstructionFact,
  LessonWayFact,
  NearFindingFact,
  OnEyeFact,
  RefractionFact,
  RotationFact,
  TopicFact,
  VisitFacts,
  WornAnswerFact,
} from './visitFacts';
import type { StepId } from './visitSteps';
import type { WearerRow } from './wearerFile';
import type { BroughtAlong, ProvenanceNode, SellerVerified } from './wornNow';

/** What of a page every step shows: read with each of them, and answered by each command. */
export interface VisitHead {
  readonly visit: VisitRow;
  /** What it was decided to be and to cost; null of one that was opened before that was kept. */
  readonly decided: VisitDecision | null;
  readonly wearer: WearerRow & { readonly age: number };
  readonly answers: StepAnswers;
  readonly lines: HandOverLines;
  readonly alert: HealthState['alert'];
  /** Rules of the absolute stops that are open. */
  readonly stops: readonly string[];
  /** What each eye wears now, as far as this practice knows. */
  readonly worn: Readonly<Record<Eye, (ProvenanceNode & { readonly familyName: string }) | null>>;
  readonly drafts: readonly DraftRow[];
  /** Names the state of the practice's lens library. */
  readonly libraryTag: string;
}

export interface DraftRow {
  readonly step: string;
  readonly authorId: string;
  readonly author: string;
  readonly body: unknown;
  readonly sequence: number;
  readonly savedAt: string;
}

/** A slit lamp's scale, as it was calibrated. */
export interface InstrumentRow extends InstrumentScale {
  readonly id: string;
  readonly name: string;
  readonly addedAt: string;
  readonly addedByName: string;
}

/** One point of a graded sign's trend. */
export interface TrendPoint {
  readonly value: number;
  readonly at: string;
}

/** The parts of a visit. A step reads those it names in STEP_SLICES. */
export interface VisitSlices<Family> {
  readonly health: { readonly health: HealthFile };
  /** Grades of earlier visits, oldest first, by eye and sign. */
  readonly trend: { readonly trend: Readonly<Record<Eye, Readonly<Record<string, readonly TrendPoint[]>>>> };
  /** What was measured in the visit, and what of earlier ones stands beside it. */
  readonly measures: {
    readonly facts: VisitFacts;
    /** Powers measured at earlier visits, newest of each eye. */
    readonly earlierRefractions: readonly RefractionFact[];
    /** The newest of each eye at earlier visits that found an addition. */
    readonly addsBefore: readonly RefractionFact[];
    /** Lenses of this visit that were on an eye at an earlier one too, and how they turned there. */
    readonly earlierOnEye: readonly FactChain<OnEyeFact>[];
    readonly earlierRotations: readonly FactChain<RotationFact>[];
    /** Of each lens of this visit, how its family last turned on that eye at an earlier one. */
    readonly knownTurns: readonly KnownTurn[];
    /** Best acuity of each eye at earlier visits, logMAR. */
    readonly bestBefore: Readonly<Record<Eye, number | null>>;
    readonly instruments: readonly InstrumentRow[];
  };
  /** Prescriptions, lessons, hand-overs and orders: the newest, and those of the visit. */
  readonly supply: {
    readonly prescriptions: readonly Prescription[];
    readonly lessons: readonly LessonRow[];
    readonly attempts: readonly FactChain<AttemptFact>[];
    readonly topics: readonly FactChain<TopicFact>[];
    readonly lessonWays: readonly FactChain<LessonWayFact>[];
    readonly lessonTurns: readonly FactChain<LessonTurnFact>[];
    readonly lessonSights: readonly FactChain<LessonSightFact>[];
    /** What was answered in the exercises of this visit's lessons, oldest first. */
    readonly exercises: readonly (ScenarioAnswer & { readonly lessonId: string })[];
    /** Care systems prescribed: the newest of other visits, and those of this one. */
    readonly careSystems: readonly FactChain<CareSystemFact>[];
    /** What prescribers said of lessons, at other visits and at this one. */
    readonly lessonInstructions: readonly FactChain<LessonInstructionFact>[];
    /** Near sight and seeing with both eyes: the newest of other visits, and those of this one. */
    readonly nearFindings: readonly FactChain<NearFindingFact>[];
    readonly handOvers: readonly FactChain<HandOverFact>[];
    /** What was answered about the lenses worn: at other visits, and at this one. */
    readonly wornAnswers: readonly FactChain<WornAnswerFact>[];
    /** What was tried at other visits: the newest of each eye, and what prescriptions rest on. */
    readonly trials: readonly OnEyeFact[];
    /** What a list brought along from elsewhere. */
    readonly broughtAlong: readonly BroughtAlong[];
    /** What this practice verified to sellers. */
    readonly sellerVerified: readonly SellerVerified[];
    /** Codes of every family of which lenses were handed over at other visits. */
    readonly givenFamilies: readonly string[];
    readonly orders: readonly Order[];
    /** Lenses that the wearer said are gone. */
    readonly losses: readonly LensLoss[];
  };
  /** Lenses that the other parts name, and what their families make today. */
  readonly lenses: { readonly lenses: Readonly<Record<string, LensRow>>; readonly ofLenses: readonly Family[] };
  /** Trial lenses that may still be used, counted by lens. */
  /** Trial lenses of the drawer, and every lens of the practice's diagnostic sets. */
  readonly drawer: { readonly drawer: readonly DrawerCount[]; readonly sets: readonly SetLens[] };
}
export type SliceName = keyof VisitSlices<unknown>;
export const SLICE_NAMES = ['health', 'trend', 'measures', 'supply', 'lenses', 'drawer'] as const satisfies readonly SliceName[];

/** What each page of a visit reads. */
export const STEP_SLICES = {
  redEye: ['health', 'measures', 'supply', 'lenses'],
  asLastTime: ['health', 'measures', 'supply', 'lenses'],
  wornNow: ['health', 'measures', 'supply', 'lenses'],
  aftercare: ['health', 'measures', 'supply', 'lenses'],
  history: ['health', 'measures', 'supply', 'lenses'],
  eyeHealth: ['health', 'measures', 'trend', 'supply', 'lenses'],
  kind: ['health', 'measures', 'supply', 'lenses'],
  refraction: ['health', 'measures', 'supply', 'lenses', 'drawer'],
  nearVision: ['health', 'measures', 'supply', 'lenses'],
  lens: ['health', 'measures', 'supply', 'lenses', 'drawer'],
  onEye: ['health', 'measures', 'supply', 'lenses', 'drawer'],
  prescription: ['health', 'measures', 'supply', 'lenses'],
  lesson: ['health', 'measures', 'supply', 'lenses'],
  supply: ['health', 'measures', 'supply', 'lenses'],
  print: ['health', 'measures', 'supply', 'lenses'],
  diagnosticSet: ['health', 'measures', 'supply', 'lenses', 'drawer'],
} as const satisfies Readonly<Record<StepId | 'kind' | 'print' | 'diagnosticSet', readonly SliceName[]>>;
export type VisitPage = keyof typeof STEP_SLICES;
export const VISIT_PAGES = Object.keys(STEP_SLICES) as [VisitPage, ...VisitPage[]];
