'use client';
import { useTranslations } from 'use-intl';
import { ReasonPanel } from '../../shell/ReasonPanel';
import { useVisit } from '../../shell/VisitProvider';

/** "Taken off" was pressed by mistake: the lens is still on, with the reason kept. */
export function PutBack({ lensOnEyeId }: { readonly lensOnEyeId: string }) {
  const t = useTranslations('correct');
  const { run, record } = useVisit();
  if (record.visit.closedAt !== null) return null;
  return (
    <ReasonPanel
      open={t('stillOn')}
      title={t('stillOnTitle')}
      doWords={t('do')}
      onReason={async (reason) => (await run('putBack', { lensOnEyeId, reason }, t('done')))?.ok === true}
    />
  );
}
