import type { GuidedCylinder } from '../irregular/guidedCylinder';
import type { HelperWhy, Instruction } from './lessonInstruction';
import type { AftercareQuestionId, AftercareSaid } from '../aftercare/asked';
import type { AftercareOutcome } from '../aftercare/schedule';
import type { CornealLesion } from '../advice/cornealLesion';
import type { CareReason } from '../care/proposal';
import type { CareFault } from '../care/verdict';
import type { LogMar } from '../optics/acuity';
import type { PhotoLid } from '../photo/protractor';
import type { Degrees, Dioptres, Eye, IsoInstant } from '../units';
import type { NearSign } from '../presbyopia/nearFindings';
import type { NearTask } from '../presbyopia/nearTask';
import type { Miss } from '../teaching/misses';
import type { Technique } from '../teaching/techniques';
import type { FactChain } from './chains';
import type { LessonWay } from './lesson';
import type { Fact, AnyFact } from './fact';

export interface PowerColumns {
  readonly sphereD: number;
  readonly cylinderD: number;
  readonly axisDeg: number;
}
export interface RefractionFact extends Fact, PowerColumns {
  readonly vertexMm: number;
  readonly typedText: string;
  readonly source: 'typed' | 'copied';
  /** Near addition, D; null when none is known. */
  readonly addD: number | null;
  readonly addSource: 'measured' | 'age' | null;
  /** Distance that near was tested at, cm; null where nobody wrote it down. */
  readonly nearCm: number | null;
  /** Near acuity with these glasses and the add at that distance, logMAR, and as typed. */
  readonly nearAcuityLogMar: number | null;
  readonly nearAcuityTyped: string | null;
  /** Prism in the glasses, as written. */
  readonly prismText: string | null;
  /** Sight with these glasses, logMAR, and as typed. */
  readonly acuityLogMar: number | null;
  readonly acuityTyped: string | null;
}
export interface OnEyeFact extends Fact {
  readonly lensId: string | null;
  readonly description: string | null;
  readonly source: 'trial' | 'dispensed' | 'order' | 'broughtIn';
  readonly trialNumber: number | null;
  readonly trialStockId: string | null;
  /** The lens of a diagnostic set that it was; null for any other. */
  readonly diagnosticLensId: string | null;
  readonly lot: string | null;
  readonly expiresOn: string | null;
  readonly putOnAt: IsoInstant;
}
/** The fitter's word on a fit. */
export const FIT_WORDS = ['loose', 'fits', 'tight'] as const;
export type FitWord = (typeof FIT_WORDS)[number];
export interface FitFact extends Fact {
  readonly lensOnEyeId: string;
  readonly verdict: FitWord;
  readonly provisional: boolean;
}
/** How a reading of the mark came about; `look`: one look found it where it is known to sit; `photo`: off a picture. */
export const READ_HOW = ['drag', 'keys', 'typed', 'scale', 'pedal', 'look', 'photo'] as const;
export type ReadHow = (typeof READ_HOW)[number];
/** One blink's reading of the mark. */
export interface RotationFact extends Fact {
  readonly lensOnEyeId: string;
  readonly rotationLeftDeg: Degrees;
  readonly how: ReadHow;
  readonly provisional: boolean;
  /** Readings of one number were taken one after another. */
  readonly seriesNo: number;
  /** The number on the scale, where one was read. */
  readonly scaleReading: number | null;
  /** The picture it was read off, how far that is turned clockwise (degrees), and how it was taken; null for any other reading. */
  readonly pictureId: string | null;
  readonly photoRollDeg: Degrees | null;
  readonly photoLid: PhotoLid | null;
  /** What the program read off the picture, degrees; null where it said nothing, or was not asked. */
  readonly photoFoundDeg: Degrees | null;
}
/** Something seen of a lens on an eye: a number or a word. */
export interface LensFindingFact extends Fact {
  readonly lensOnEyeId: string;
  readonly sign: string;
  readonly numberValue: number | null;
  readonly wordValue: string | null;
  readonly typedText: string | null;
  readonly provisional: boolean;
}
/** An earlier lens of the visit taken up again as the one to decide on. */
export interface LensChoice {
  readonly lensOnEyeId: string;
  readonly why: string;
  readonly chosenAt: IsoInstant;
  readonly chosenByName: string;
}
/** How the first +0.50 looked: it finds the over-minused, and is never the finding itself. */
export const PLUS_HALF = ['worse', 'same', 'better'] as const;
export type PlusHalf = (typeof PLUS_HALF)[number];
export interface OverRefractionFact extends Fact, PowerColumns {
  readonly lensOnEyeId: string;
  readonly vertexMm: number;
  readonly typedText: string;
  readonly acuityLogMar: number | null;
  readonly acuityTyped: string | null;
  readonly provisional: boolean;
  /** Was cylinder looked for? A sphere says nothing of cylinder either way. */
  readonly cylinderTested: boolean;
  readonly plusHalf: PlusHalf | null;
  readonly control: OverControl;
}
/** Ways of seeing without a lens on the eye. */
export const ACUITY_WAYS = ['unaided', 'glasses', 'pinhole'] as const;
export type AcuityWay = (typeof ACUITY_WAYS)[number];
/** What an eye sees without a contact lens; needs no power. */
export interface EyeAcuityFact extends Fact {
  readonly way: AcuityWay;
  readonly acuityLogMar: LogMar;
  readonly acuityTyped: string;
}
/** What a wearer answers to "is this what you have in now?", asked of each eye. */
export const WORN_ANSWERS = ['yes', 'oldPair', 'mixed', 'boughtElsewhere', 'someoneElses', 'lost', 'glasses'] as const;
export type WornAnswer = (typeof WORN_ANSWERS)[number];
/** What was said of one eye, and which lens it was about. */
export interface WornAnswerFact extends Fact {
  readonly answer: WornAnswer;
  /** The lens that is on the eye; null where none is, or nobody can name it. */
  readonly lensId: string | null;
  /** Where that lens is kept as on the eye. */
  readonly lensOnEyeId: string | null;
}
/** How it is known which lens a wearer has in: what they say, the engraving on it, the box or blister; the last is the surest. */
export const WORN_HOW = ['wearerSaid', 'engravingSeen', 'boxSeen'] as const;
export type WornHow = (typeof WORN_HOW)[number];
export const CONFIRMED_HOW = ['putOnHere', ...WORN_HOW] as const;
export type ConfirmedHow = (typeof CONFIRMED_HOW)[number];
/** Who vouches for a lens on an eye, and when it came off. */
export interface OnEyeExtra {
  readonly lensOnEyeId: string;
  readonly how: ConfirmedHow | null;
  readonly takenOffAt: IsoInstant | null;
  readonly withdrawnOffAt: IsoInstant | null;
  readonly withdrawnReason: string | null;
}

/** The measured facts of one visit, as chains. */
export interface VisitFacts {
  readonly refractions: readonly FactChain<RefractionFact>[];
  readonly onEye: readonly FactChain<OnEyeFact>[];
  readonly onEyeExtras: readonly OnEyeExtra[];
  readonly fits: readonly FactChain<FitFact>[];
  readonly rotations: readonly FactChain<RotationFact>[];
  readonly overRefractions: readonly FactChain<OverRefractionFact>[];
  readonly lensFindings: readonly FactChain<LensFindingFact>[];
  readonly acuitiesBoth: readonly FactChain<AcuityBothFact>[];
  readonly eyeAcuities: readonly FactChain<EyeAcuityFact>[];
  readonly taskSights: readonly FactChain<TaskSightFact>[];
  readonly heldQuarters: readonly FactChain<HeldQuarterFact>[];
  readonly pairChanges: readonly FactChain<PairChangeFact>[];
  /** In the order in which they were chosen. */
  readonly choices: readonly LensChoice[];
  /** Cylinders that were looked for step by step, in that order. */
  readonly guided: readonly GuidedCylinder[];
}

/** What both eyes see together through two lenses. It is of no single eye. */
export interface AcuityBothFact extends AnyFact {
  readonly eye: null;
  readonly rightLensOnEyeId: string;
  readonly leftLensOnEyeId: string;
  readonly acuityLogMar: number;
  readonly acuityTyped: string;
  readonly provisional: boolean;
}

/** How relaxed accommodation was when an over-refraction was taken. */
export const OVER_CONTROLS = ['none', 'fogging', 'balance', 'cycloplegia'] as const;
export type OverControl = (typeof OVER_CONTROLS)[number];

export interface RecordedFinding extends Fact {
  readonly sign: string;
  readonly numberValue: number | null;
  readonly wordValue: string | null;
  /** The earlier finding that this one repeats: it keeps that one's day, and never counts as graded today. */
  readonly copiedFromId: string | null;
}

/** Something drawn on a cornea, of the day on which it was seen. */
export interface CornealLesionFact extends Fact, CornealLesion {}

/** What was answered to a question of aftercare; `eye` null for one that is asked of the wearer. */
export interface AftercareAnswerFact extends AnyFact {
  readonly question: AftercareQuestionId;
  readonly said: AftercareSaid;
}

/** How aftercare ended, and when the wearer is seen next. */
export interface AftercareEndFact extends AnyFact {
  readonly eye: null;
  readonly outcome: AftercareOutcome;
  readonly note: string | null;
  /** What the rules pointed to when it was decided: rule and eye, as `hazePair right`. */
  readonly pointedTo: readonly string[];
  readonly ruleVersion: string;
  /** The appointment that was booked; null where none was, and why not. */
  readonly appointmentId: string | null;
  readonly unbookedReason: string | null;
}

export interface AttemptFact extends Fact {
  readonly lessonId: string;
  readonly move: 'on' | 'off';
  readonly worked: boolean;
  readonly unaided: boolean;
  readonly miss: Miss | null;
  /** How it was tried; null of attempts that were recorded before that was kept. */
  readonly technique: Technique | null;
}
export interface TopicFact extends AnyFact {
  readonly lessonId: string;
  readonly topic: string;
  /** Said back once more at the end. */
  readonly atEnd: boolean;
}
/** What a prescriber says of the lesson. */
export interface LessonInstructionFact extends AnyFact {
  readonly eye: null;
  readonly what: Instruction;
  readonly text: string;
  readonly why: HelperWhy | null;
}
/** How this wearer is taught, as it was last said. */
export interface LessonWayFact extends AnyFact, LessonWay {
  readonly lessonId: string;
}
/** The lesson's clock runs on, rests, or stops for the day. */
export interface LessonTurnFact extends AnyFact {
  readonly lessonId: string;
  readonly turn: 'run' | 'pause' | 'stop';
  readonly note: string | null;
}
/** Acuity through a lens that the wearer put on. */
export interface LessonSightFact extends Fact {
  readonly lessonId: string;
  readonly acuityLogMar: LogMar;
  readonly acuityTyped: string;
}
/** The care system prescribed, and why. */
export interface CareSystemFact extends AnyFact {
  readonly eye: null;
  readonly productId: string;
  /** The version of the product that was in force. */
  readonly careProductId: string;
  readonly productName: string;
  readonly chosenFor: CareReason;
  readonly note: string | null;
  /** What spoke against it and was overridden, and with what sentence. */
  readonly overridden: readonly CareFault[];
  readonly overrideNote: string | null;
}
/** Something of near sight or of seeing with both eyes; a task's number is its distance in cm. */
export interface NearFindingFact extends AnyFact {
  readonly eye: null;
  readonly sign: NearSign;
  readonly numberValue: number | null;
  readonly wordValue: string | null;
  /** Why it was decided so, where it was a decision. */
  readonly note: string | null;
}
/** What both eyes see together of a task, and what the wearer thinks of it; or one alone, the other covered. */
export interface TaskSightFact extends AnyFact {
  readonly eye: null;
  readonly rightLensOnEyeId: string;
  readonly leftLensOnEyeId: string;
  readonly task: NearTask;
  readonly distanceCm: number;
  readonly acuityLogMar: LogMar | null;
  readonly acuityTyped: string | null;
  /** 0 to 10. */
  readonly satisfaction: number;
  readonly covered: Eye | null;
}
export const HELD_ANSWERS = ['better', 'same', 'worse'] as const;
/** A quarter of a dioptre held before an eye with both open. */
export interface HeldQuarterFact extends Fact {
  readonly rightLensOnEyeId: string;
  readonly leftLensOnEyeId: string;
  readonly byD: Dioptres;
  readonly task: NearTask;
  readonly distanceCm: number;
  readonly answer: (typeof HELD_ANSWERS)[number];
}
/** The change that was made next, and what was foretold of it. */
export interface PairChangeFact extends AnyFact {
  readonly eye: null;
  readonly rightLensOnEyeId: string;
  readonly leftLensOnEyeId: string;
  readonly change: string;
  readonly foretold: readonly string[];
  readonly ruleVersion: string;
}
export interface HandOverFact extends Fact {
  readonly lensId: string;
  readonly source: 'trial' | 'order';
  readonly lensOnEyeId: string | null;
  /** The line of the order that it came from; null for a trial. */
  readonly orderLineId: string | null;
  readonly lot: string;
  readonly expiresOn: string;
  readonly openedOn: string | null;
  readonly lensCount: number;
  readonly handedOn: string;
}
