import { contextOf, eyesOfVisit, type Eye, type EyeContext, type EyeState, type NamedLens, type Picks } from '@/core';
import { healthOfRecord } from './health';
import type { VisitRecord } from './visitData';

const of = (record: VisitRecord, picks: Picks) => ({
  age: record.wearer.age,
  bestBefore: record.bestBefore,
  knownTurns: record.knownTurns,
  health: healthOfRecord(record, { right: null, left: null }),
  nearFindings: record.nearFindings,
  addsBefore: record.addsBefore,
  picks,
});

/** What of the wearer bears on each eye beside what was measured in this visit. */
export function contextsOf(record: VisitRecord, picks: Picks = {}): Readonly<Record<Eye, EyeContext>> {
  const about = of(record, picks);
  return { right: contextOf(about, record.facts, 'right'), left: contextOf(about, record.facts, 'left') };
}

/** Both eyes of the visit as they stand. */
export const eyesOfRecord = (record: VisitRecord, lensOf: (id: string) => NamedLens | undefined, picks: Picks = {}): Readonly<Record<Eye, EyeState>> =>
  eyesOfVisit(record.facts, lensOf, record.session.settings, of(record, picks));
