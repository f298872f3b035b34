'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import correctPanelWords from '@/i18n/messages/en/correctPanel.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { problemAt, useProblemWords, useRefusalWords } from '../../common/words';
import { useVisit } from './VisitProvider';

/** Asks why, over the page. */
function ReasonFormBody({
  title,
  text,
  doWords,
  onReason,
  onClose,
}: {
  readonly title: string;
  readonly text?: string;
  readonly doWords: string;
  /** True when it happened. */
  readonly onReason: (reason: string) => Promise<boolean>;
  readonly onClose: () => void;
}) {
  const t = useTranslations('correctPanel');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { problem, clearProblem, busy } = useVisit();
  const [reason, setReason] = useState('');
  const reasonProblem = problemAt(problem, 'reason');
  const close = (): void => {
    clearProblem();
    onClose();
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (await onReason(reason)) onClose();
  };
  return (
    <Panel open onClose={close} title={title}>
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
  );
}

export const ReasonForm = withWords({ correctPanel: correctPanelWords }, ReasonFormBody);
