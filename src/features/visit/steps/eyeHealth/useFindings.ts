import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, type AcuityWay, type Eye, type SignId } from '@/core';
import { problemAt } from '../../../common/words';
import { healthOfRecord } from '../../shell/health';
import { useDraft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { asChains, draftKey, faults, openStops, typedFindings, type FindingFault } from './model';
import { typedSight } from './SightRows';

/** What is typed of both eyes, what it would mean, and the commands that record it or refer the wearer. */
export function useFindings() {
  const t = useTranslations('eyeHealth');
  const router = useRouter();
  const { record, health, eye, run, problem } = useVisit();
  const draft = useDraft('eyeHealth');
  const { acuity } = record.session.settings;
  const typed = useMemo(() => typedFindings(draft.body), [draft.body]);
  const wrong = useMemo(() => faults(typed, health.today), [typed, health.today]);
  const live = useMemo(() => {
    const needs = { right: eye('right').verdict.choosing, left: eye('left').verdict.choosing };
    return healthOfRecord(record, needs, { findings: asChains(typed, record.visit.id) });
  }, [record, eye, typed]);
  const sight = { right: typedSight(draft.body, 'right', acuity), left: typedSight(draft.body, 'left', acuity) };
  const stopped = openStops(record);
  const referred = record.health.referrals.some((r) => stopped.some((s) => s.id === r.stopId));

  /** What is wrong with a finding of an eye, seen here or said by the server. */
  const faultOf =
    (id: SignId | AcuityWay) =>
    (e: Eye): FindingFault | null => {
      const local = wrong[draftKey(e, id)];
      if (local) return local;
      const sent = typed.filter((f) => f.eye === e);
      const server = problemAt(problem, e, String(sent.findIndex((f) => f.sign === id)), 'value') ?? problemAt(problem, e, id);
      return server ? { code: server.code, data: server.data ?? {} } : null;
    };
  const recordAll = async (): Promise<void> => {
    if (Object.keys(wrong).length > 0 || sight.right === null || sight.left === null) {
      document.querySelector<HTMLElement>('.problem')?.scrollIntoView({ block: 'center' });
      return;
    }
    const list = (e: Eye) => typed.filter((f) => f.eye === e).map(({ sign, value }) => ({ sign, value }));
    const form = { right: list('right'), left: list('left'), rightSight: sight.right, leftSight: sight.left };
    const done = await run('recordFindings', form, t('done'));
    if (done?.ok) draft.clear();
  };
  const refer = async (): Promise<void> => {
    const [stop] = stopped;
    if (!stop) return;
    if (referred) router.push(`/visits/${record.visit.id}/print/referral`);
    else await run('openReferral', { stopId: stop.id }, t('referDone'));
  };
  return {
    draft,
    live,
    waiting: typed.length > 0 || EYES.some((e) => sight[e] === null || sight[e].length > 0),
    stopped,
    referred,
    closed: record.visit.closedAt !== null,
    faultOf,
    put: (e: Eye, id: SignId, value: number | string): void => draft.set(draftKey(e, id), String(value)),
    recordAll,
    refer,
  };
}
export type FindingsTyped = ReturnType<typeof useFindings>;
