'use client';
import { useTranslations } from 'use-intl';
import type { Eye } from '@/core';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Panel } from '@/ui/Panel';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import { powerWords } from '../../shell/worn';
import type { AskingState } from './useAsking';

/** Which of the lenses handed over before: one press each. */
export function OlderLens({ asking, eye }: { readonly asking: AskingState; readonly eye: Eye }) {
  const t = useTranslations('wornNow');
  const eyeWords = useEyeWords();
  const { record, busy } = useVisit();
  const close = (): void => asking.open(null);
  return (
    <Panel open onClose={close} title={t('oldTitle', { eye: eyeWords.name(eye) })}>
      <ul className="flex flex-col gap-2">
        {asking.eyes[eye].older.map((given) => (
          <li key={given.rootId}>
            <Button
              disabled={busy}
              onClick={() => {
                close();
                void asking.send(eye, { answer: 'oldPair', handOverId: given.rootId });
              }}
            >
              {t('oldLens', {
                lens: `${record.lenses[given.lensId]?.familyName ?? ''} ${powerWords(record, given.lensId)}`,
                lot: given.lot,
                day: formatDay(given.handedOn),
              })}
            </Button>
          </li>
        ))}
      </ul>
    </Panel>
  );
}
