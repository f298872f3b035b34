'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { useSending } from '../common/useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';

/** What of an order has not come is given up, with why. */
export function CancelPanel({ orderId, onClose, onDone }: { readonly orderId: string; readonly onClose: () => void; readonly onDone: () => void }) {
  const t = useTranslations('orderPage');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const [reason, setReason] = useState('');
  const { send, problem, busy } = useSending<'cancelOrder'>(onDone);
  const at = problemAt(problem, 'reason');
  return (
    <Panel open onClose={onClose} title={t('cancelTitle')}>
      <p className="pb-3">{t('cancelLine')}</p>
      <Field label={t('cancelWhy')} value={reason} onValue={setReason} problem={at ? words(at.code, at.data) : null} autoFocus />
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
      <div className="flex gap-3 pt-3">
        <Button look="act" disabled={busy} onClick={() => void send('cancelOrder', { orderId, reason })}>
          {t('cancelKeep')}
        </Button>
        <Button onClick={onClose}>{t('close')}</Button>
      </div>
    </Panel>
  );
}
