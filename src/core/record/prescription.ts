import type { WrittenAim } from '../presbyopia/aims';
import type { Override } from '../fit/lastLook';
import type { Purpose } from '../supply/purpose';
import type { RawOrder } from '../supply/rawOrder';
import type { Eye } from '../units';

export interface PrescriptionEyeRow {
  readonly eye: Eye;
  /** `final`: a lens is named; `raw`: what a laboratory works from, and no lens. */
  readonly mode: 'final' | 'raw';
  readonly lensId: string | null;
  readonly raw: RawOrder | null;
  readonly triedLensOnEyeId: string | null;
  readonly baseCurveTriedMm: number | null;
  readonly baseCurveOrderedMm: number;
  /** What the eye is to see with it, as it was decided when it was signed; null where nothing was decided of near. */
  readonly aim: WrittenAim | null;
  readonly working: Readonly<Record<string, string>>;
}

export interface Prescriber {
  readonly name: string;
  readonly title: string;
  readonly registerNumber: string;
  readonly practice: string;
  readonly address: string;
  readonly telephone: string;
}

export interface PrescriptionRow {
  readonly id: string;
  readonly number: number;
  readonly visitId: string;
  readonly wearerId: string;
  readonly examinedOn: string;
  readonly issuedAt: string;
  readonly issuedOn: string;
  readonly expiresOn: string;
  readonly prescriber: Prescriber;
  readonly waitNote: string | null;
  readonly daysPerWeek: number;
  readonly supersedesId: string | null;
  /** What the prescriber overrode, and why. */
  readonly overrides: readonly Override[];
  readonly purpose: Purpose;
  /** Why it runs shorter than the rules would have it; null where it does not. */
  readonly expiryReason: string | null;
}

/** How a wearer got a copy: acknowledged by signature, refused, or sent with their consent. */
export const COPY_WAYS = ['signed', 'refused', 'digital'] as const;
export type CopyWay = (typeof COPY_WAYS)[number];
/** That a copy was given, as somebody said last. */
export interface CopyGiven {
  readonly how: CopyWay;
  readonly givenAt: string;
  readonly givenByName: string;
}

export interface Prescription extends PrescriptionRow {
  readonly eyes: readonly PrescriptionEyeRow[];
  /** Null while nobody has said so. */
  readonly copy: CopyGiven | null;
}
