import { eyeAtRisk, eyeState, type Eye, type EyeContext, type EyeState, type NamedLens, type Picked } from '@/core';
import type { VisitRecord } from '@/services/visitRecord';
import { healthOf } from './health';

/** What a prescriber picked where refraction and over-refraction do not agree, by eye. */
export type Picks = Readonly<Partial<Record<Eye, Picked | null>>>;

/** What of the wearer bears on each eye beside what was measured in this visit. */
export function contextsOf(record: VisitRecord, picks: Picks = {}): Readonly<Record<Eye, EyeContext>> {
  const health = healthOf(record, { right: null, left: null });
  const of = (eye: Eye): EyeContext => ({
    age: record.wearer.age,
    bestBefore: record.bestBefore[eye],
    oneLineAsks: eyeAtRisk(health, eye),
    picked: picks[eye] ?? null,
  });
  return { right: of('right'), left: of('left') };
}

/** Both eyes of the visit as they stand. */
export function eyesOfRecord(record: VisitRecord, lensOf: (id: string) => NamedLens | undefined, picks: Picks = {}): Readonly<Record<Eye, EyeState>> {
  const contexts = contextsOf(record, picks);
  const of = (eye: Eye): EyeState => eyeState(record.facts, eye, lensOf, record.house.settings, contexts[eye]);
  return { right: of('right'), left: of('left') };
}
