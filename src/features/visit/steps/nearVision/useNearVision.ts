import { useRouter } from 'next/navigation';
import { useTranslations } from 'use-intl';
import { addKnown, addsKnown, dominanceOf, nearState, nearWays, wayFactsOf, wayWouldChange, type NearSign, type NearWay } from '@/core';
import { decisionOf } from '../../shell/health';
import { useVisit } from '../../shell/VisitProvider';

/** Near sight as it stands, what it comes to, and the commands that record it: each press at once. */
export function useNearVision() {
  const t = useTranslations('nearVision');
  const router = useRouter();
  const { record, eye, health, run, busy, problem } = useVisit();
  const near = nearState(record.nearFindings);
  const adds = addsKnown(record.facts.refractions, record.addsBefore);
  const facts = wayFactsOf(near, { right: eye('right'), left: eye('left') }, health, addKnown(record.facts.refractions, record.addsBefore)?.addD ?? null);
  const closed = record.visit.closedAt !== null;
  const onward = Object.keys(health.answers).length > 0 && decisionOf(record) === null ? 'kind' : 'lens';
  return {
    near,
    adds,
    facts,
    advice: nearWays(facts),
    would: wayWouldChange(facts),
    dominance: dominanceOf(near),
    /** Decided at whatever visit; null while nothing is. */
    decided: record.nearFindings.filter((c) => c.current?.sign === 'way').at(-1)?.current ?? null,
    closed,
    blocked: closed || busy,
    problem,
    onward,
    goOn: (): void => router.push(`/visits/${record.visit.id}/${onward}`),
    keep: (sign: NearSign, value: number | string): void => void run('recordNearFindings', { findings: [{ sign, value }] }, t('recorded')),
    decide: (way: NearWay, reason: string) => run('decideNearWay', { way, reason }, t('decided')),
  };
}
export type NearVision = ReturnType<typeof useNearVision>;
