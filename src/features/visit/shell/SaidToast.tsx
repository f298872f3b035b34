'use client';
import { Toast } from 'radix-ui';
import { useTranslations } from 'use-intl';
import { Button } from '@/ui/Button';
import { StateMark } from '@/ui/marks';
import type { Said } from './VisitNotices';
import type { Run } from './VisitStore';

const UNDO_MS = 10_000;

/** What was done a moment ago, with the way to undo it. */
export function SaidToast({ said, onSaid, run }: { readonly said: Said | null; readonly onSaid: (said: Said | null) => void; readonly run: Run }) {
  const t = useTranslations('visit');
  const undo = (): void => {
    if (!said) return;
    onSaid(null);
    void run('undo', { facts: said.undo }, t('undone'));
  };
  return (
    <Toast.Provider duration={UNDO_MS} label={t('notices')}>
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
