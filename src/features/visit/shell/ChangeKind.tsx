'use client';
import { useTranslations } from 'use-intl';
import type { VisitKind } from '@/core';
import { Panel } from '@/ui/Panel';
import { KindChoice, useFeeWords } from '../../common/visitKind/KindChoice';
import { useVisit } from './VisitProvider';

/** What the visit was decided to be and to cost, what was proposed, and another kind or fee by one press. */
export function ChangeKind({ onClose }: { readonly onClose: () => void }) {
  const t = useTranslations('visitKind');
  const kinds = useTranslations('today.kind');
  const fees = useFeeWords();
  const { record, run, problem, clearProblem, busy } = useVisit();
  const { decided } = record;
  const close = (): void => {
    clearProblem();
    onClose();
  };
  const choose = async (kind: VisitKind, fee: number | null): Promise<void> => {
    if ((await run('changeVisit', { kind, fee }, t('changed')))?.ok) close();
  };
  return (
    <Panel open wide onClose={close} title={t('title')}>
      {decided ? (
        <p className="pb-3" data-testid="decided">
          {t('decided', {
            name: decided.decidedByName,
            kind: kinds(record.visit.kind),
            fee: fees(decided.fee),
            proposed: kinds(decided.proposedKind),
            proposedFee: fees(decided.proposedFee),
          })}
        </p>
      ) : null}
      <KindChoice proposal={null} problem={problem} busy={busy} onChoose={(kind, fee) => void choose(kind, fee)} />
    </Panel>
  );
}
