import { handedFor, type Eye, type HandOverFact } from '@/core';
import type { VisitRecord } from './visitData';

/** Lenses handed over at an earlier visit that may be on each eye now. */
export const wornBefore = (record: VisitRecord, eye: Eye): readonly HandOverFact[] =>
  handedFor(eye, record.handOvers).filter((h) => h.visitId !== record.visit.id);
