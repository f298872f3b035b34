'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { problemAt, useProblemWords } from '../common/words';
import { useVisit } from '../common/visit/VisitProvider';

/** "Taken off" was pressed by mistake: the lens is still on, with the reason kept. */
export function PutBack({ lensOnEyeId }: { readonly lensOnEyeId: string }) {
  const t = useTranslations('correct');
  const words = useProblemWords();
  const { run, problem, clearProblem, busy, record } = useVisit();
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  const reasonProblem = problemAt(problem, 'reason');
  const close = (): void => {
    clearProblem();
    setOpen(false);
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const done = await run('putBack', { lensOnEyeId, reason }, t('done'));
    if (done?.ok) setOpen(false);
  };
  if (record.visit.closedAt !== null) return null;
  return (
    <>
      <button type="button" className="btn btn-quiet" onClick={() => setOpen(true)}>
        {t('stillOn')}
      </button>
      <Panel open={open} onClose={close} title={t('stillOnTitle')}>
        <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-3">
          <Field
            label={t('reason')}
            value={reason}
            onValue={setReason}
            autoFocus
            problem={reasonProblem ? words(reasonProblem.code, reasonProblem.data) : null}
          />
          <div className="flex justify-end gap-3">
            <Button onClick={close}>{t('cancel')}</Button>
            <Button look="act" type="submit" disabled={busy}>
              {t('do')}
            </Button>
          </div>
        </form>
      </Panel>
    </>
  );
}
