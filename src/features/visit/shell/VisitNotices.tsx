'use client';
import { Toast } from 'radix-ui';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { StateMark } from '@/ui/marks';
import { useRefusalWords } from '../../common/words';
import type { Run, UndoFacts } from './VisitStore';

const UNDO_MS = 10_000;
export interface Said {
  readonly key: number;
  readonly text: string;
  readonly undo: UndoFacts;
}

/** What was done a moment ago, with the way to undo it, and what was refused. */
export function VisitNotices({
  said,
  onSaid,
  problem,
  onClear,
  run,
  children,
}: {
  readonly said: Said | null;
  readonly onSaid: (said: Said | null) => void;
  readonly problem: Problem | null;
  readonly onClear: () => void;
  readonly run: Run;
  readonly children: ReactNode;
}) {
  const t = useTranslations('visit');
  const refusal = useRefusalWords();
  const undo = (): void => {
    if (!said) return;
    onSaid(null);
    void run('undo', { facts: said.undo }, t('undone'));
  };
  return (
    <Toast.Provider duration={UNDO_MS} label={t('notices')}>
      {children}
      {problem && problem.kind !== 'invalid' && problem.kind !== 'conflict' ? (
        <div className="refusal" role="alert">
          <StateMark state="stop" size={16} />
          <span>{refusal(problem)}</span>
          <Button look="quiet" onClick={onClear}>
            {t('settled')}
          </Button>
        </div>
      ) : null}
      {said ? (
        <Toast.Root key={said.key} className="toast" onOpenChange={(open) => (open ? undefined : onSaid(null))}>
          <Toast.Title className="flex gap-2 items-baseline">
            <StateMark state="ok" />
            {said.text}
          </Toast.Title>
          {said.undo.length > 0 ? (
            <Toast.Action altText={t('undoAlt')} asChild>
              <Button look="quiet" onClick={undo}>
                {t('undo')}
              </Button>
            </Toast.Action>
          ) : null}
        </Toast.Root>
      ) : null}
      <Toast.Viewport className="toasts" />
    </Toast.Provider>
  );
}
