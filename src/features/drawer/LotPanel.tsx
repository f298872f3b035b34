'use client';
import { useEffect, useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { expiryState, TRIAL_LEAVES, type TrialLeaves } from '@/core';
import { formatDay, formatMoment } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { Segment } from '@/ui/Segment';
import type { ServiceOutput } from '../common/server';
import { useServer } from '../common/ServerProvider';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import { LendForm, LevelForm } from './LotForms';
import { numberOf, powerOfLot, type Lot } from './model';
import { useDrawerCommand } from './useDrawerCommand';

/** One lot: thrown away, counted, and what came and went of it. */
export function LotPanel({ lot, onClose }: { readonly lot: Lot; readonly onClose: () => void }) {
  const t = useTranslations('drawer');
  const { session } = useServer();
  const { send, problem, busy } = useDrawerCommand();
  const refusal = useRefusalWords();
  const words = useProblemWords();
  const [count, setCount] = useState('1');
  const [counted, setCounted] = useState('');
  const [why, setWhy] = useState<TrialLeaves>(expiryState(lot.expiresOn, session.today) === 'expired' ? 'expired' : 'opened');
  const at = (field: string): string | null => {
    const found = problemAt(problem, field);
    return found ? words(found.code, found.data) : null;
  };
  const discard = (event: FormEvent): void => {
    event.preventDefault();
    void send('discardTrials', { trialStockId: lot.id, count: numberOf(count), why });
  };
  const recount = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (await send('countTrials', { trialStockId: lot.id, seen: lot.count, counted: numberOf(counted) })) setCounted('');
  };
  return (
    <Panel open wide onClose={onClose} title={t('panelTitle', { family: lot.familyName, power: powerOfLot(lot) })}>
      <p data-testid="lot-left">{t('panelLot', { lot: lot.lot, day: formatDay(lot.expiresOn), count: lot.count })}</p>
      {lot.count > 0 ? (
        <form onSubmit={discard} className="flex flex-wrap gap-x-3 items-start mt-3">
          <Field className="w-24" label={t('count')} value={count} onValue={setCount} problem={at('count')} inputMode="numeric" mono />
          <div>
            <span className="field-label">{t('why')}</span>
            <Segment label={t('why')} values={TRIAL_LEAVES} value={why} word={(w) => t(`whys.${w}`)} onChoose={setWhy} />
          </div>
          <Button type="submit" disabled={busy}>
            {t('throwDo')}
          </Button>
        </form>
      ) : null}
      <form onSubmit={(event) => void recount(event)} className="flex flex-wrap gap-3 items-start mt-2">
        <Field className="w-24" label={t('counted')} value={counted} onValue={setCounted} problem={at('counted')} inputMode="numeric" mono />
        <Button type="submit" disabled={busy || counted.trim() === ''} className="mt-6">
          {t('countDo')}
        </Button>
      </form>
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{problem.kind === 'conflict' ? t('changed') : refusal(problem)}</ProblemLine> : null}
      {lot.count > 0 ? <LendForm lot={lot} /> : null}
      <LevelForm lot={lot} />
      <Movements key={lot.count} trialStockId={lot.id} />
      <div className="flex justify-end mt-3">
        <Button onClick={onClose}>{t('close')}</Button>
      </div>
    </Panel>
  );
}

function Movements({ trialStockId }: { readonly trialStockId: string }) {
  const t = useTranslations('drawer');
  const { query, session } = useServer();
  const [rows, setRows] = useState<ServiceOutput<'readTrialMovements'>>([]);
  useEffect(() => {
    void query('readTrialMovements', { trialStockId }).then((read) => {
      if (read?.ok) setRows(read.value);
    });
  }, [query, trialStockId]);
  const why = (note: string | null): string | null => {
    const known = TRIAL_LEAVES.find((w) => w === note);
    return known ? t(`whys.${known}`) : note;
  };
  return (
    <section className="mt-4">
      <h3 className="label">{t('historyTitle')}</h3>
      <ul className="max-h-[200px] overflow-auto" data-testid="movements">
        {rows.map((m, i) => (
          <li key={i} className="flex flex-wrap gap-3 border-t border-rule py-1">
            <span className="font-mono">{m.change > 0 ? `+${m.change}` : `−${-m.change}`}</span>
            <span>{[t(`kinds.${m.kind}`), why(m.note)].filter(Boolean).join(', ')}</span>
            <span className="note ml-auto">{[m.movedByName, formatMoment(m.movedAt, session.practice.timeZone)].filter(Boolean).join(', ')}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
