'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import wearerFormWords from '@/i18n/messages/en/wearerForm.messages.json';
import { withWords } from '@/i18n/withWords';
import type { Problem } from '@/lib/outcome';
import { useServer } from '../common/ServerProvider';
import { WearerForm, type WearerInput } from './WearerForm';

/** A wearer who is not on record yet. */
function Form({ onMade, onCancel }: { readonly onMade: (wearerId: string) => void; readonly onCancel: () => void }) {
  const t = useTranslations('wearers');
  const { command } = useServer();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const add = async (input: WearerInput, sameNameIsAnother = false): Promise<void> => {
    setBusy(true);
    const done = await command('createWearer', { ...input, sameNameIsAnother });
    setBusy(false);
    if (done?.ok) onMade(done.value.wearerId);
    else if (done) setProblem(done.error);
  };
  return (
    <section className="p-6">
      <h2 className="power mb-4">{t('newTitle')}</h2>
      <WearerForm
        problem={problem}
        busy={busy}
        doWords={t('addDo')}
        onSubmit={(input) => void add(input)}
        again={(input) => void add(input, true)}
        onCancel={onCancel}
      />
    </section>
  );
}

export const NewWearer = withWords({ wearerForm: wearerFormWords }, Form);
