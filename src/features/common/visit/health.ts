import {
  handOverLines,
  healthState,
  powerSummary,
  recommend,
  onOffer,
  type Eye,
  type HandOverLines,
  type HealthState,
  type Recommendation,
  type FactChain,
  type RecordedAnswer,
  type RecordedFinding,
  type Refraction,
} from '@/core';
import type { VisitRecord } from '@/services/visitRecord';

type Needs = Readonly<Record<Eye, Refraction | null>>;

/** What is being typed, as if it were recorded: so that the rules can be shown before anything is sent. */
export interface Typing {
  readonly answers?: readonly RecordedAnswer[];
  readonly findings?: readonly FactChain<RecordedFinding>[];
}

/** History and eye health of the visit. */
export function healthOf(record: VisitRecord, needs: Needs, typing: Typing = {}): HealthState {
  const { health, wearer, visit, house } = record;
  return healthState({
    visitId: visit.id,
    earlierVisitIds: health.earlierVisitIds,
    answers: [...health.answers, ...(typing.answers ?? [])],
    findings: [...health.findings, ...(typing.findings ?? [])],
    stops: health.stops,
    passes: health.passes,
    age: wearer.age,
    guardianNamed: wearer.guardian !== null,
    power: powerSummary(needs, health.myopicShift),
    prescribers: health.prescribers,
    settings: house.settings,
  });
}

/** The kind of lens recommended for the visit as it stands. */
export const adviceOf = (record: VisitRecord, health: HealthState, needs: Needs): Recommendation =>
  recommend(health.facts, needs, onOffer(record.families, record.house.today));

export const linesOf = (health: HealthState): HandOverLines => handOverLines(health.answers, health.fired);

/** The decision about the kind of lens that holds in this visit. */
export const decisionOf = (record: VisitRecord): VisitRecord['health']['decisions'][number] | null =>
  record.health.decisions.findLast((d) => d.visitId === record.visit.id) ?? null;
