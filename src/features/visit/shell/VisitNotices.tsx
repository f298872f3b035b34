'use client';
import { lazy, Suspense, useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { StateMark } from '@/ui/marks';
import { useRefusalWords } from '../../common/words';
import type { Run, UndoFacts } from './VisitStore';

export interface Said {
  readonly key: number;
  readonly text: string;
  readonly undo: UndoFacts;
}

const load = () => import('./SaidToast').then((m) => ({ default: m.SaidToast }));
const SaidToast = lazy(load);

/** What was done a moment ago, with the way to undo it, and what was refused. */
export function VisitNotices({
  said,
  onSaid,
  problem,
  onClear,
  run,
}: {
  readonly said: Said | null;
  readonly onSaid: (said: Said | null) => void;
  readonly problem: Problem | null;
  readonly onClear: () => void;
  readonly run: Run;
}) {
  const t = useTranslations('visit');
  const refusal = useRefusalWords();
  const [began, setBegan] = useState(false);
  if (said && !began) setBegan(true);
  useEffect(() => void load(), []);
  return (
    <>
      {problem && problem.kind !== 'invalid' && problem.kind !== 'conflict' ? (
        <div className="refusal" role="alert">
          <StateMark state="stop" size={16} />
          <span>{refusal(problem)}</span>
          <Button look="quiet" onClick={onClear}>
            {t('settled')}
          </Button>
        </div>
      ) : null}
      {began ? (
        <Suspense fallback={null}>
          <SaidToast said={said} onSaid={onSaid} run={run} />
        </Suspense>
      ) : null}
    </>
  );
}
