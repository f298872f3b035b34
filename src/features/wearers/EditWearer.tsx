'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import type { WearerFile } from '@/core';
import { formatDay } from '@/i18n/format';
import conflictWords from '@/i18n/messages/en/conflict.messages.json';
import wearerFormWords from '@/i18n/messages/en/wearerForm.messages.json';
import { withWords } from '@/i18n/withWords';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { useServer } from '../common/ServerProvider';
import { WearerForm, type WearerInput } from './WearerForm';

/** Changes who the wearer is; somebody else's change since it was read is shown, never overwritten. */
function EditPanel({ wearer, onClose }: { readonly wearer: WearerFile['wearer']; readonly onClose: () => void }) {
  const t = useTranslations('wearer');
  const router = useRouter();
  const { command } = useServer();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const edit = async (input: WearerInput): Promise<void> => {
    setBusy(true);
    const done = await command('updateWearer', { ...input, wearerId: wearer.id, version: wearer.version });
    setBusy(false);
    if (done?.ok) {
      onClose();
      router.refresh();
    } else if (done) setProblem(done.error);
  };
  const reload = (): void => {
    setProblem(null);
    router.refresh();
  };
  const initial = {
    name: wearer.name,
    birthDate: formatDay(wearer.birthDate),
    telephone: wearer.telephone ?? '',
    occupation: wearer.occupation ?? '',
    guardian: wearer.guardian ?? '',
  };
  return (
    <Panel open onClose={onClose} title={t('editTitle')}>
      {problem?.kind === 'conflict' ? <Differs differs={problem.differs} onReload={reload} /> : null}
      <WearerForm initial={initial} problem={problem} busy={busy} doWords={t('editDo')} onSubmit={(input) => void edit(input)} onCancel={onClose} />
    </Panel>
  );
}

function Differs({ differs, onReload }: { readonly differs: Extract<Problem, { kind: 'conflict' }>['differs']; readonly onReload: () => void }) {
  const t = useTranslations('wearer');
  const factsOf = useWordsOf('conflict.facts');
  return (
    <div className="mb-3" role="alert">
      <Stated state="watch">{t('conflict')}</Stated>
      <ul>
        {differs.map((d) => (
          <li key={d.what} className="label">
            {t('conflictField', { field: factsOf(d.what), text: d.text })}
          </li>
        ))}
      </ul>
      <Button look="quiet" onClick={onReload}>
        {t('conflictReload')}
      </Button>
    </div>
  );
}

export const EditWearer = withWords({ conflict: conflictWords, wearerForm: wearerFormWords }, EditPanel);
