import type { LensAdd, Modality } from '../lens/family';
import type { Refraction } from '../optics/refraction';
import type { Purpose } from '../supply/purpose';
import type { Dioptres, Eye, IsoDate, IsoInstant, Millimetres } from '../units';

/** What a prescription says when it leaves for, or comes from, another system: whatever its format. */

export interface ExchangedLens {
  /** At the eye for a contact lens, in the trial frame for spectacles. */
  readonly power: Refraction;
  readonly add: LensAdd | null;
  /** Addition in dioptres, where it is given so. */
  readonly addD: Dioptres | null;
  /** Maker and name as one, where the other system has one field for both. */
  readonly brand: string;
  readonly baseCurveMm: Millimetres | null;
  readonly diameterMm: Millimetres | null;
  /** How often it is replaced. */
  readonly modality: Modality | null;
}
export interface ExchangedPrescription {
  readonly kind: 'contact' | 'spectacles';
  readonly number: string;
  readonly purpose: Purpose | null;
  readonly writtenOn: IsoDate | null;
  /** A moment, or a day alone where no more was written. */
  readonly createdAt: IsoInstant | null;
  readonly expiresOn: IsoDate | null;
  readonly eyes: Readonly<Record<Eye, ExchangedLens | null>>;
}
export interface ExchangedPerson {
  readonly name: string;
  readonly birthDate: IsoDate | null;
  readonly telephone: string | null;
}
export interface ExchangedPrescriber {
  readonly name: string;
  readonly registerNumber: string | null;
  readonly telephone: string | null;
  readonly address: string | null;
}
export interface ExchangedDocument {
  readonly person: ExchangedPerson | null;
  readonly prescriber: ExchangedPrescriber | null;
  readonly prescriptions: readonly ExchangedPrescription[];
}
/** Something that a file says and that was not taken: where it stands, and what it says. Nothing is dropped unsaid. */
export interface LeftAside {
  readonly path: string;
  readonly value: string;
}
/** What was understood of a file, and what was not. */
export interface ReadDocument {
  readonly document: ExchangedDocument;
  readonly left: readonly LeftAside[];
}
