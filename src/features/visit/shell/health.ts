import { healthOf, nearState, onOffer, recommend, type Eye, type HealthState, type Recommendation, type Refraction, type Typing } from '@/core';
import type { VisitRecord } from './visitData';

type Needs = Readonly<Record<Eye, Refraction | null>>;

/** History and eye health of the visit, with what is being typed on top. */
export const healthOfRecord = (record: VisitRecord, needs: Needs, typing: Typing = {}): HealthState =>
  healthOf(record.health, { visitId: record.visit.id, wearer: record.wearer, settings: record.session.settings }, needs, typing);

/** The kind of lens recommended for the visit as it stands. */
export const adviceOf = (record: VisitRecord, health: HealthState, needs: Needs): Recommendation =>
  recommend(health.facts, needs, onOffer(record.families, record.session.today), nearState(record.nearFindings).way);

/** The decision about the kind of lens that holds in this visit. */
export const decisionOf = (record: VisitRecord): VisitRecord['health']['decisions'][number] | null =>
  record.health.decisions.findLast((d) => d.visitId === record.visit.id) ?? null;
