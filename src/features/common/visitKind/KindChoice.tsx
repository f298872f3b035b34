'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { feeOf, mayOpenVisit, VISIT_KINDS, type VisitKind, type VisitProposal } from '@/core';
import { formatDay, formatMoney } from '@/i18n/format';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { useServer } from '../ServerProvider';
import { problemAt, useProblemWords, useRefusalWords } from '../words';

/** A fee as it is said: nothing to pay has words of its own. */
export function useFeeWords(): (fee: number) => string {
  const t = useTranslations('visitKind');
  const { practice } = useServer().session;
  return (fee) => (fee === 0 ? t('free') : formatMoney(Math.round(fee * 100), practice.currency));
}
/** A typed amount; null where nothing is typed, NaN where it is none. */
const amountOf = (text: string): number | null => (text.trim() === '' ? null : Number(text.trim().replace(',', '.').replace(/^\$/, '')));

/** Which kind of visit, with what it costs: the proposed one first, with its reason; any other by one press too. */
export function KindChoice({
  proposal,
  problem,
  busy,
  onChoose,
}: {
  /** Null where nothing is proposed: what it is was decided before. */
  readonly proposal: VisitProposal | null;
  readonly problem: Problem | null;
  readonly busy: boolean;
  /** @param fee null: as the settings say */
  readonly onChoose: (kind: VisitKind, fee: number | null) => void;
}) {
  const t = useTranslations('visitKind');
  const kinds = useTranslations('today.kind');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const fees = useFeeWords();
  const { session } = useServer();
  const [fee, setFee] = useState('');
  const [asked, setAsked] = useState(false);
  const amount = amountOf(fee);
  const wrong = problemAt(problem, 'fee');
  const allowed = VISIT_KINDS.filter((kind) => mayOpenVisit(session.viewer.roles, kind));
  const choose = (kind: VisitKind): void => {
    setAsked(true);
    // What is no amount is said here: sent, it would be as if nothing had been typed.
    if (!Number.isNaN(amount)) onChoose(kind, amount);
  };
  const press = (kind: VisitKind, look: 'act' | 'plain') => (
    <Button key={kind} look={look} disabled={busy} onClick={() => choose(kind)} data-testid={`kind-${kind}`}>
      {t('withFee', { kind: kinds(kind), fee: fees(feeOf(kind, session.settings)) })}
    </Button>
  );
  const first = proposal && allowed.includes(proposal.kind) ? proposal : null;
  return (
    <div className="flex flex-col gap-3">
      {first ? (
        <div data-testid="proposed-kind">
          <div className="field-label">{t('proposed')}</div>
          {press(first.kind, 'act')}
          <p className="label pt-1">{t(`because.${first.because}`, dataWords(first.data))}</p>
        </div>
      ) : null}
      <div>
        {first ? <div className="field-label">{t('others')}</div> : null}
        <div className="flex flex-wrap gap-2">{allowed.filter((kind) => kind !== first?.kind).map((kind) => press(kind, 'plain'))}</div>
      </div>
      <Field
        className="w-[200px]"
        label={t('fee')}
        value={fee}
        onValue={setFee}
        hint={t('feeHint')}
        inputMode="decimal"
        problem={wrong ? words(wrong.code, wrong.data) : asked && Number.isNaN(amount) ? words('feeShape') : null}
        autoComplete="off"
      />
      {problem && !wrong ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
    </div>
  );
}

/** Figures of a reason as they are said: days in words. */
const dataWords = (data: VisitProposal['data']): Record<string, string | number> =>
  Object.fromEntries(Object.entries(data).map(([key, value]) => [key, typeof value === 'string' ? formatDay(value) : value]));
