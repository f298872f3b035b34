'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import drawerMoreWords from '@/i18n/messages/en/drawerMore.messages.json';
import drawerMoreProblems from '@/i18n/messages/en/drawerMoreProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import { numberOf, specOf, type Lot } from './model';
import { useDrawerCommand } from './useDrawerCommand';

/** Lenses of a lot that somebody borrows. */
function Lend({ lot }: { readonly lot: Lot }) {
  const t = useTranslations('drawerMore');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { send, problem, busy } = useDrawerCommand();
  const [count, setCount] = useState('1');
  const [lentTo, setLentTo] = useState('');
  const [dueOn, setDueOn] = useState('');
  const at = (field: string): string | null => {
    const found = problemAt(problem, field);
    return found ? words(found.code, found.data) : null;
  };
  const lend = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const of = { trialStockId: lot.id, count: numberOf(count), lentTo, dueOn: dueOn.trim() === '' ? null : dueOn };
    if (await send('lendTrials', of)) setLentTo('');
  };
  return (
    <form onSubmit={(event) => void lend(event)} className="flex flex-wrap gap-x-3 items-start mt-2" aria-label={t('lendTitle')}>
      <Field className="w-24" label={t('lendCount')} value={count} onValue={setCount} problem={at('count')} inputMode="numeric" mono />
      <Field className="w-56" label={t('lentTo')} value={lentTo} onValue={setLentTo} problem={at('lentTo')} autoComplete="off" />
      <Field className="w-36" label={t('dueOn')} value={dueOn} onValue={setDueOn} problem={at('dueOn')} autoComplete="off" />
      <Button type="submit" disabled={busy} className="mt-6">
        {t('lendDo')}
      </Button>
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
    </form>
  );
}

/** How many of a lens the drawer keeps at least. */
function Level({ lot }: { readonly lot: Lot }) {
  const t = useTranslations('drawerMore');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { send, problem, busy } = useDrawerCommand();
  const [least, setLeast] = useState(lot.least === null ? '' : String(lot.least));
  const lens = specOf(lot);
  const [fault] = problem?.kind === 'invalid' ? problem.fields : [];
  if (lens === null) return null;
  const keep = (event: FormEvent): void => {
    event.preventDefault();
    void send('setTrialLevels', { levels: [{ lens, least: numberOf(least) }] });
  };
  return (
    <form onSubmit={keep} className="flex flex-wrap gap-x-3 items-start mt-2">
      <Field
        className="w-56"
        label={t('levelTitle')}
        value={least}
        onValue={setLeast}
        hint={t('levelHint')}
        problem={fault ? words(fault.code, fault.data) : null}
        inputMode="numeric"
        mono
      />
      <Button type="submit" disabled={busy || least.trim() === ''} className="mt-6">
        {t('levelDo')}
      </Button>
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
    </form>
  );
}

const WORDS = { drawerMore: drawerMoreWords, problems: drawerMoreProblems };
export const LendForm = withWords(WORDS, Lend);
export const LevelForm = withWords(WORDS, Level);
