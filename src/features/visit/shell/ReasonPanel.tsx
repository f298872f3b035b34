'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { problemAt, useProblemWords, useRefusalWords } from '../../common/words';
import { useVisit } from './VisitProvider';

/** A correction that needs nothing but its reason: a quiet button, and a panel that asks why. */
export function ReasonPanel({
  open: openWords,
  title,
  text,
  doWords,
  onReason,
}: {
  readonly open: string;
  readonly title: string;
  readonly text?: string;
  readonly doWords: string;
  /** True when it happened. */
  readonly onReason: (reason: string) => Promise<boolean>;
}) {
  const t = useTranslations('correct');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { problem, clearProblem, busy } = useVisit();
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  const reasonProblem = problemAt(problem, 'reason');
  const close = (): void => {
    clearProblem();
    setOpen(false);
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (await onReason(reason)) setOpen(false);
  };
  return (
    <>
      <button type="button" className="btn btn-quiet" onClick={() => setOpen(true)}>
        {openWords}
      </button>
      <Panel open={open} onClose={close} title={title}>
        <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-3">
          {text ? <p>{text}</p> : null}
          <Field
            label={t('reason')}
            value={reason}
            onValue={setReason}
            autoFocus
            problem={reasonProblem ? words(reasonProblem.code, reasonProblem.data) : null}
          />
          {problem && problem.kind !== 'invalid' && problem.kind !== 'conflict' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
          <div className="flex justify-end gap-3">
            <Button onClick={close}>{t('cancel')}</Button>
            <Button look="act" type="submit" disabled={busy}>
              {doWords}
            </Button>
          </div>
        </form>
      </Panel>
    </>
  );
}
