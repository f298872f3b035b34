import type { AppointmentState } from '../diary/appointment';
import type { TaskBecause, TaskKind } from '../diary/task';
import type { FactChain } from './chains';
import type { HandOverFact, OnEyeFact, WornAnswerFact } from './visitFacts';
import type { LensRow } from './lens';
import type { LensLoss } from './lensLoss';
import type { ContactChoice } from './message';
import type { Order } from './order';
import type { Prescription } from './prescription';
import type { ExaminedElsewhere, VisitRow } from './visit';
import type { BroughtAlong, SellerVerified } from './wornNow';
import type { VisitKind } from './visitSteps';

/** What a wearer's own page shows: of each kind what is newest. */
export interface WearerFile {
  readonly wearer: WearerRow & { readonly age: number };
  /** That who this is was erased, and until when the facts are kept; null for everybody else. */
  readonly erasure: { readonly erasedAt: string; readonly keptUntil: string } | null;
  /** Since when an absolute stop stands: no lens until a prescriber ends it; null when none does. */
  readonly stoppedSince: string | null;
  /** Since when a danger sign is reported that nobody has acknowledged; null for none. */
  readonly alertSince: string | null;
  /** A page of the visits, newest first. */
  readonly visits: readonly VisitRow[];
  readonly moreVisits: boolean;
  /** When the newest visit of each kind was opened; kinds that there never was are left out. */
  readonly newestOf: Readonly<Partial<Record<VisitKind, string>>>;
  readonly examinedElsewhere: ExaminedElsewhere | null;
  readonly lenses: Readonly<Record<string, LensRow>>;
  /** The newest trial of each eye. */
  readonly onEye: readonly FactChain<OnEyeFact>[];
  readonly prescriptions: readonly Prescription[];
  readonly prescriptionCount: number;
  readonly handOvers: readonly FactChain<HandOverFact>[];
  readonly orders: readonly Order[];
  /** Lenses that the wearer said are gone. */
  readonly losses: readonly LensLoss[];
  /** What was last answered about the lenses worn. */
  readonly wornAnswers: readonly FactChain<WornAnswerFact>[];
  /** What was worn before coming here, of each eye. */
  readonly broughtAlong: readonly BroughtAlong[];
  /** What this practice verified to sellers. */
  readonly sellerVerified: readonly SellerVerified[];
  readonly identityChanges: readonly IdentityChangeRow[];
  /** How they last said that they want to be written to; null where nobody asked. */
  readonly contact: ContactChoice | null;
  /** From today on, soonest first. */
  readonly appointments: readonly ComingAppointment[];
  /** What is still to be done about this wearer, the first due first. */
  readonly tasks: readonly OpenTask[];
}

export interface ComingAppointment {
  readonly appointmentId: string;
  readonly startsAt: string;
  readonly kind: VisitKind;
  readonly state: AppointmentState;
  readonly room: string | null;
  readonly staff: string | null;
}
export interface OpenTask {
  readonly id: string;
  readonly kind: TaskKind;
  readonly text: string | null;
  readonly because: TaskBecause | null;
  readonly dueOn: string;
}

/** An identity as it was before a change. */
export interface IdentityChangeRow {
  readonly version: number;
  readonly was: Readonly<Record<'name' | 'birthDate' | 'telephone' | 'occupation' | 'guardian', string | null>>;
  readonly changedAt: string;
  readonly changedByName: string;
}

export interface WearerRow {
  readonly id: string;
  readonly recordNumber: number;
  readonly version: number;
  readonly name: string;
  readonly birthDate: string;
  readonly telephone: string | null;
  readonly occupation: string | null;
  readonly guardian: string | null;
  /** BCP 47: papers and messages for this wearer are written in it. */
  readonly language: string;
}
