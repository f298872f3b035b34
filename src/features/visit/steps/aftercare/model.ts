import { inForce, provenanceInVisit, TROUBLES, type AftercareVisit, type Eye, type EyeState, type HealthState, type NamedLens } from '@/core';
import type { VisitRecord } from '../../shell/visitData';

/** View logic of aftercare, without React. */

/** Aftercare of the visit, from what its page holds. */
export const aftercareVisitOf = (
  record: VisitRecord,
  health: HealthState,
  eyes: Readonly<Record<Eye, EyeState>>,
  lensOf: (lensId: string) => NamedLens | undefined,
  hasLibrary: boolean,
): AftercareVisit => ({
  visitId: record.visit.id,
  today: record.session.today,
  settings: record.session.settings,
  file: record.health,
  health,
  eyes,
  facts: record.facts,
  provenance: provenanceInVisit(record),
  handOvers: record.handOvers,
  lenses: record.lenses,
  materials: record.ofLenses,
  carePairs: hasLibrary ? record.carePairs : [],
  lensOf,
  daysPerWeek: inForce(record.prescriptions)[0]?.daysPerWeek ?? 7,
});

/** What is said of an eye after one more press: nothing wrong takes back the rest, and a trouble takes back that. */
export function troublesAfter(said: readonly string[], pressed: string): readonly string[] {
  if (pressed === 'none') return ['none'];
  const rest = said.filter((s) => s !== 'none' && s !== pressed);
  const next = said.includes(pressed) ? rest : [...rest, pressed];
  return next.length === 0 ? ['none'] : TROUBLES.filter((trouble) => next.includes(trouble));
}

/** A whole number as typed within limits; null for anything else. @example wholeOf('12', 1, 24) → 12 */
export function wholeOf(text: string, min: number, max: number): number | null {
  const value = /^\d{1,3}$/.test(text.trim()) ? Number(text.trim()) : NaN;
  return value >= min && value <= max ? value : null;
}

/** Signs of the lens that are pressed here; the rest of a fit stands on its own page. */
export const LENS_PRESSED = ['deposits', 'damage'] as const;
export const COMFORT = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];
