import { formatRefraction, inForce, provenanceInVisit, type WornDoubtsOf } from '@/core';
import type { VisitRecord } from './visitData';

/** Hours at which most put their lenses in: our own choice; any other time is typed. */
export const HOURS = [5, 6, 7, 8, 9, 10, 12] as const;
export const timeOf = (hour: number): string => `${hour}:00`;

/** What doubts about the lenses worn are told from, of a visit. */
export const wornDoubtsOf = (record: VisitRecord): WornDoubtsOf => ({
  file: provenanceInVisit(record),
  losses: record.losses,
  lensOf: (id) => record.lenses[id],
  daysPerWeek: inForce(record.prescriptions)[0]?.daysPerWeek ?? 7,
  today: record.session.today,
  timeZone: record.session.practice.timeZone,
  visitId: record.visit.id,
});

/** The power of a lens of the record; empty where it is none of it. */
export function powerWords(record: VisitRecord, lensId: string): string {
  const lens = record.lenses[lensId];
  return lens ? formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }) : '';
}
