'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { useSending } from '../common/useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';

interface Of {
  readonly orderId: string;
  readonly telephone: string;
  readonly onClose: () => void;
  readonly onDone: () => void;
}

/** An order that a supplier took by telephone: its name there, and the day that was promised. */
export function Telephoned({ orderId, telephone, onClose, onDone }: Of) {
  const t = useTranslations('orderPage');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const [reference, setReference] = useState('');
  const [dueOn, setDueOn] = useState('');
  const { send, problem, busy } = useSending<'recordTelephoned'>(onDone);
  const at = (field: string): string | null => {
    const found = problemAt(problem, field);
    return found ? words(found.code, found.data) : null;
  };
  return (
    <Panel open onClose={onClose} title={t('telephone')}>
      <p className="pb-3">{t('telephoneLine', { telephone })}</p>
      <Field label={t('reference')} value={reference} onValue={setReference} problem={at('reference')} autoFocus />
      <Field label={t('dueOn')} value={dueOn} onValue={setDueOn} problem={at('dueOn')} />
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
      <Button look="act" disabled={busy} onClick={() => void send('recordTelephoned', { orderId, reference, dueOn })}>
        {t('telephoneKeep')}
      </Button>
    </Panel>
  );
}
