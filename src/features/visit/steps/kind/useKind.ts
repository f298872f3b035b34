import { useMemo } from 'react';
import {
  adviceFacts,
  droppedLenses,
  firedRules,
  onOffer,
  powerSummary,
  recommend,
  whatWouldChange,
  type Answers,
  type HealthState,
  type Kind,
  type KindChoice,
  nearState,
} from '@/core';
import { adviceOf } from '../../shell/health';
import { useVisit } from '../../shell/VisitProvider';
import type { VisitRecord } from '../../shell/visitData';
import { firstFamily, stopCount, type Needs } from './model';

/** What one answer more or less would make of the recommendation. */
function wouldChange(record: VisitRecord, health: HealthState, needs: Needs) {
  const { wearer, session } = record;
  const again = (answers: Answers) => {
    const facts = adviceFacts({
      answers,
      age: wearer.age,
      guardianNamed: wearer.guardian !== null,
      eyes: health.findings,
      baseline: health.baseline,
      ...(health.facts.lowest ? { lowest: health.facts.lowest } : {}),
      power: powerSummary(needs, record.health.myopicShift),
      settings: session.settings,
    });
    return {
      recommendation: recommend(facts, needs, onOffer(record.families, session.today), nearState(record.nearFindings).way),
      stops: stopCount(firedRules(facts)),
    };
  };
  return whatWouldChange(health.answers, wearer.age, again);
}

/** The kind of lens recommended, what else can be had, and what would change it. */
export function useKind() {
  const { record, health, eye } = useVisit();
  const needs = useMemo((): Needs => ({ right: eye('right').verdict.choosing, left: eye('left').verdict.choosing }), [eye]);
  const advice = useMemo(() => adviceOf(record, health, needs), [record, health, needs]);
  const would = useMemo(() => wouldChange(record, health, needs), [record, health, needs]);
  const offered = [advice.recommended, advice.second, ...advice.others].filter((c): c is KindChoice => c !== null);
  const givenToday = record.handOvers.flatMap((c) => (c.current ? [record.lenses[c.current.lensId]?.familyCode ?? ''] : []));
  return {
    needs,
    advice,
    would,
    offered,
    night: offered.some((c) => c.kind.wear === 'overnight') ? undefined : advice.notOffered.find((n) => n.wear === 'overnight'),
    dropped: droppedLenses(health.answers, [...record.givenFamilies, ...givenToday]),
    firstOf: (kind: Kind) => firstFamily(record, kind, needs),
    asked: Object.keys(health.answers).length > 0,
    closed: record.visit.closedAt !== null,
  };
}
export type KindAdvice = ReturnType<typeof useKind>;
