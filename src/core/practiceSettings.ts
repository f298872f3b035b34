/**
 * What a practice chooses where practitioners differ. Each has the safer choice as its default; changes are
 * appended with who and when, and a prescription keeps the settings it was made under.
 */
export interface PracticeSettings {
  /** A final prescription follows the aftercare review, unless the prescriber notes why at once. */
  readonly finalPrescription: 'afterAftercare' | 'atOnce';
  /** May an order reach past the prescription's expiry? */
  readonly pastExpiry: 'refuse' | 'prescriberNote';
  readonly notation: 'minus' | 'plus';
  /** SD of one reading of a rotation mark, degrees. */
  readonly readerNoiseDegrees: number;
  /** Never more cylinder than the refraction asks (at the cornea). */
  readonly cylinderCap: boolean;
  /** Blur differences up to this count as equal when families are ranked, D. */
  readonly rankTolerance: number;
  /** Months from issue to expiry proposed. */
  readonly prescriptionMonths: number;
  /** Days kept in hand before the last lens. */
  readonly reorderMarginDays: number;
  /** Minutes without a touch before the screen locks. */
  readonly idleMinutes: number;
  /** Vertex distance proposed, mm. */
  readonly vertexMm: number;
}

export const DEFAULT_SETTINGS: PracticeSettings = {
  finalPrescription: 'afterAftercare',
  pastExpiry: 'refuse',
  notation: 'minus',
  readerNoiseDegrees: 2,
  cylinderCap: false,
  rankTolerance: 0.06,
  prescriptionMonths: 12,
  reorderMarginDays: 7,
  idleMinutes: 10,
  vertexMm: 12,
};

/** Identity of the rules that reasons were made under. */
export const RULE_VERSION = '2026-11.1';
