'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { REORDER_OUTCOMES, type ReorderOutcome } from '@/core';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { Segment } from '@/ui/Segment';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import type { ReorderPageState } from './useReorder';

type Unordered = Exclude<ReorderOutcome, 'ordered'>;
const UNORDERED = REORDER_OUTCOMES.filter((o): o is Unordered => o !== 'ordered');

/** Nothing is ordered in this call: why, and from when on somebody calls again. */
export function EndCall({ page, first, onClose }: { readonly page: ReorderPageState; readonly first: Unordered; readonly onClose: () => void }) {
  const t = useTranslations('reorder');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const [outcome, setOutcome] = useState<Unordered>(first);
  const [laterOn, setLaterOn] = useState('');
  const day = problemAt(page.problem, 'laterOn');
  const { problem } = page;
  return (
    <Panel open onClose={onClose} title={t('endTitle')}>
      <div className="flex flex-col gap-3">
        <Segment kind="wrapping" label={t('endTitle')} values={UNORDERED} value={outcome} word={(o) => t(`outcome.${o}`)} onChoose={setOutcome} />
        {outcome === 'later' ? (
          <Field label={t('laterOn')} value={laterOn} onValue={setLaterOn} hint={t('laterHint')} problem={day ? words(day.code, day.data) : null} autoFocus />
        ) : null}
        <Field label={t('note')} value={page.note} onValue={page.setNote} />
        {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        <Button look="act" disabled={page.busy} onClick={() => void page.end(outcome, outcome === 'later' ? laterOn : null)}>
          {t('end')}
        </Button>
      </div>
    </Panel>
  );
}
