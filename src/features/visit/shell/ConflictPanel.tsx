'use client';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { formatTime } from '@/i18n/format';
import conflictWords from '@/i18n/messages/en/conflict.messages.json';
import { withWords } from '@/i18n/withWords';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { Panel } from '@/ui/Panel';
import { useServer } from '../../common/ServerProvider';

/** Somebody else was first: what they recorded, and the way on. */
function Conflict({ problem, onClear, onReload }: { readonly problem: Problem | null; readonly onClear: () => void; readonly onReload: () => Promise<void> }) {
  const t = useTranslations('conflict');
  const tOf = useWordsOf('conflict');
  const { session } = useServer();
  const conflict = problem?.kind === 'conflict' ? problem : null;
  return (
    <Panel open={conflict !== null} onClose={onClear} title={t('title')}>
      <p className="mb-3">{t('text')}</p>
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
          {t('reload')}
        </Button>
      </div>
    </Panel>
  );
}

export const ConflictPanel = withWords({ conflict: conflictWords }, Conflict);
