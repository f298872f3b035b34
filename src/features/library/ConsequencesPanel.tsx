'use client';
import { useTranslations } from 'use-intl';
import { formatDay } from '@/i18n/format';
import type { Consequences } from '@/services/family/commands';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';

/** What a new version brings about, before it is saved. */
export function ConsequencesPanel({
  consequences,
  startsOn,
  busy,
  onClose,
  onSave,
}: {
  readonly consequences: Consequences | null;
  readonly startsOn: string;
  readonly busy: boolean;
  readonly onClose: () => void;
  readonly onSave: () => void;
}) {
  const t = useTranslations('library');
  return (
    <Panel open={consequences !== null} onClose={onClose} title={t('followsTitle')}>
      {consequences ? (
        <>
          <p className="mb-2">{t('followsVersion', { day: formatDay(startsOn) })}</p>
          <p className="mb-2">{t('followsUse', { count: consequences.prescriptions })}</p>
          {consequences.lost.length > 0 ? (
            <>
              <Stated state="stop">{t('followsLost', { count: consequences.lost.length })}</Stated>
              <ul className="my-2">
                {consequences.lost.map((u) => (
                  <li key={`${u.wearerId}${u.eye}`}>{t('lostLine', { name: u.name, day: formatDay(u.birthDate), eye: u.eye, number: u.number })}</li>
                ))}
              </ul>
            </>
          ) : (
            <Stated state="ok">{t('followsNone')}</Stated>
          )}
          {consequences.drawerLost > 0 ? <p className="mt-2">{t('followsDrawer', { count: consequences.drawerLost })}</p> : null}
          <div className="flex justify-end gap-3 mt-4">
            <Button onClick={() => onClose()}>{t('goOn')}</Button>
            <Button look="act" disabled={busy} onClick={() => onSave()}>
              {t('saveVersion')}
            </Button>
          </div>
        </>
      ) : null}
    </Panel>
  );
}
