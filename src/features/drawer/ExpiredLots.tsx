'use client';
import { useTranslations } from 'use-intl';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { powerOfLot, type Lot } from './model';
import { useDrawerCommand } from './useDrawerCommand';

/** Lots past their day: one press each throws them away. */
export function ExpiredLots({ lots }: { readonly lots: readonly Lot[] }) {
  const t = useTranslations('drawer');
  const { send, busy } = useDrawerCommand();
  if (lots.length === 0) return null;
  return (
    <section className="px-6 pb-3" data-testid="expired">
      <h2 className="settings-group">{t('takeOut')}</h2>
      <p className="label">{t('takeOutLine')}</p>
      <ul>
        {lots.map((lot) => (
          <li key={lot.id} className="flex flex-wrap gap-4 items-center border-t border-rule py-2">
            <span className="value">{`${lot.familyName} ${powerOfLot(lot)}`}</span>
            <span className="font-mono">{lot.lot}</span>
            <Stated state="stop">{t('expired', { day: formatDay(lot.expiresOn) })}</Stated>
            <span className="ml-auto" />
            <Button disabled={busy} onClick={() => void send('discardTrials', { trialStockId: lot.id, count: lot.count, why: 'expired' })}>
              {t('throwAll', { count: lot.count })}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
