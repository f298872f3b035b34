'use client';
import { useTranslations } from 'use-intl';
import { Stated } from '@/ui/marks';
import type { DraftStep } from './draftKeys';
import type { Draft } from './useDraft';

/** Whether unfinished typing is safe, in words; and who else is typing here. */
export function DraftLine({ draft }: { readonly draft: Pick<Draft<DraftStep>, 'state' | 'others'> }) {
  const t = useTranslations('draft');
  return (
    <div className="px-6 py-2 label flex flex-wrap gap-x-6" aria-live="polite" data-testid="draft-state" data-state={draft.state}>
      {draft.state === 'waiting' ? <Stated state="watch">{t('waiting')}</Stated> : null}
      {draft.state === 'saved' ? <Stated state="ok">{t('saved')}</Stated> : null}
      {draft.state === 'saving' ? <span>{t('saving')}</span> : null}
      {draft.state === 'elsewhere' ? <Stated state="stop">{t('elsewhere')}</Stated> : null}
      {draft.others.length > 0 ? <Stated state="watch">{t('others', { names: draft.others.join(', ') })}</Stated> : null}
    </div>
  );
}
