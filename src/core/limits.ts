/**
 * The one table of limits. Core, the form shapes and the database's CHECKs follow it; a test feeds all three
 * the same edges. `hard` is refused, outside `likely` the screen asks. Source: our own choice.
 */
export interface Limit {
  readonly min: number;
  readonly max: number;
  /** Entry step in the same unit; null where any value will do. */
  readonly step: number | null;
  readonly likelyMin: number;
  readonly likelyMax: number;
}

export const LIMITS = {
  sphere: { min: -30, max: 30, step: 0.25, likelyMin: -12, likelyMax: 12 },
  cylinder: { min: -12, max: 0, step: 0.25, likelyMin: -6, likelyMax: 0 },
  axis: { min: 1, max: 180, step: 1, likelyMin: 1, likelyMax: 180 },
  add: { min: 0.25, max: 4, step: 0.25, likelyMin: 0.25, likelyMax: 3 },
  nearCm: { min: 20, max: 100, step: 1, likelyMin: 30, likelyMax: 70 },
  vertexMm: { min: 5, max: 20, step: 0.5, likelyMin: 10, likelyMax: 16 },
  rotationLeft: { min: -90, max: 90, step: 1, likelyMin: -45, likelyMax: 45 },
  baseCurveMm: { min: 7, max: 10, step: 0.05, likelyMin: 7.8, likelyMax: 9.2 },
  diameterMm: { min: 12, max: 18, step: 0.1, likelyMin: 13.5, likelyMax: 15 },
} as const satisfies Record<string, Limit>;
export type LimitName = keyof typeof LIMITS;

/** Earliest birth date taken. */
export const EARLIEST_BIRTH_DATE = '1900-01-01';

/** True when the value lies on a multiple of the limit's step. */
export function onStep(value: number, limit: Limit): boolean {
  if (limit.step === null) return true;
  const steps = value / limit.step;
  return Math.abs(steps - Math.round(steps)) < 1e-6;
}

export const withinLimit = (value: number, limit: Limit): boolean => value >= limit.min && value <= limit.max;
export const isLikely = (value: number, limit: Limit): boolean => value >= limit.likelyMin && value <= limit.likelyMax;
