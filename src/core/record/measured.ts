import type { Refraction } from '../optics/refraction';
import { roundToStep, type Degrees, type Eye, type Millimetres } from '../units';
import type { ExchangedPerson, LeftAside } from './exchanged';

/** How an instrument or a person came to a power or a curve. */
export const MEASURED_HOW = ['autorefraction', 'subjectiveRefraction', 'lensometry', 'keratometry'] as const;
export type MeasuredHow = (typeof MEASURED_HOW)[number];

/** Two meridians of a cornea: radii in mm, and the axis of the flatter one. */
export interface Keratometry {
  readonly flatMm: Millimetres;
  readonly flatAxis: Degrees | null;
  readonly steepMm: Millimetres;
}
/** What was measured of one eye. */
export interface MeasuredEye {
  readonly power: Refraction | null;
  readonly curves: Keratometry | null;
}
export interface MeasuredPart {
  readonly how: MeasuredHow;
  /** Vertex distance of the powers, mm; null where the file does not say. */
  readonly vertexMm: Millimetres | null;
  readonly eyes: Readonly<Record<Eye, MeasuredEye | null>>;
}
/** A file of an instrument as it was understood. */
export interface MeasuredFile {
  readonly person: ExchangedPerson | null;
  /** A day, or a day and a time, as the instrument's clock had it. */
  readonly measuredAt: string | null;
  readonly device: string | null;
  readonly parts: readonly MeasuredPart[];
  /** What was not understood, and what was rounded. */
  readonly left: readonly LeftAside[];
}

/** Radii of a cornea that can be, mm: as the findings of the eye take them. */
export const CURVE_LIMIT = { min: 4.5, max: 11 } as const;
/** Keratometer constant, D·mm. Source: common practice, a refractive index of 1.3375. */
const KERATOMETER = 337.5;
/** Radius of a power on the cornea, mm. @example Math.round(radiusOfPower(45) * 100) / 100 → 7.5 */
export const radiusOfPower = (dioptres: number): Millimetres => KERATOMETER / dioptres;

/**
 * Meridians in their order: the flatter is the longer radius, whichever was named first.
 * @example inOrder({ flatMm: 7.5, flatAxis: 10, steepMm: 7.8 }) → {flatMm: 7.8, flatAxis: 100, steepMm: 7.5}
 */
export function inOrder({ flatMm, flatAxis, steepMm }: Keratometry): Keratometry {
  if (flatMm >= steepMm) return { flatMm, flatAxis, steepMm };
  return { flatMm: steepMm, flatAxis: flatAxis === null ? null : ((flatAxis + 89) % 180) + 1, steepMm: flatMm };
}

/**
 * A power in the quarters in which it is written down; instruments measure finer. Towards plus where it lies in the middle: powers never tie towards minus.
 * @example inQuarters({ sphere: -3.12, cylinder: -0.87, axis: 12.4 }) → {sphere: -3, cylinder: -0.75, axis: 12}
 */
export function inQuarters({ sphere, cylinder, axis }: Refraction): Refraction {
  const c = roundToStep(cylinder, 0.25, 'plus');
  const whole = Math.round(axis);
  return { sphere: roundToStep(sphere, 0.25, 'plus'), cylinder: c, axis: c === 0 || whole === 0 ? 180 : whole };
}
