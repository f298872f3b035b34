'use client';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { formatTime } from '@/i18n/format';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { Panel } from '@/ui/Panel';
import { useServer } from '../../common/ServerProvider';

/** Somebody else was first: what they recorded, and the way on. */
export function ConflictPanel({
  problem,
  onClear,
  onReload,
}: {
  readonly problem: Problem | null;
  readonly onClear: () => void;
  readonly onReload: () => Promise<void>;
}) {
  const t = useTranslations('visit');
  const tOf = useWordsOf('visit');
  const { session } = useServer();
  const conflict = problem?.kind === 'conflict' ? problem : null;
  return (
    <Panel open={conflict !== null} onClose={onClear} title={t('conflictTitle')}>
      <p className="mb-3">{t('conflictText')}</p>
      <ul className="mb-4">
        {(conflict?.differs ?? []).map((fact, index) => (
          <li key={index} className="border-b border-rule py-1">
            <strong>{tOf(`facts.${fact.what}`, { eye: fact.eye ?? 'both' })}</strong> {fact.text}{' '}
            <span className="note">{t('by', { name: fact.by, time: formatTime(fact.at, session.practice.timeZone) })}</span>
          </li>
        ))}
      </ul>
      <div className="flex justify-end">
        <Button
          look="act"
          onClick={() => {
            onClear();
            void onReload();
          }}
        >
          {t('conflictReload')}
        </Button>
      </div>
    </Panel>
  );
}
