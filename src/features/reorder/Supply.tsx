'use client';
import { useTranslations } from 'use-intl';
import { formatMinuteOfDay, leavesToday } from '@/core';
import { formatMoney, formatTime } from '@/i18n/format';
import { Field } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';
import { problemAt, useProblemWords } from '../common/words';
import type { ReorderPageState } from './useReorder';

/** From whom the boxes come, whether they leave today, and where they go. */
export function Supply({ page }: { readonly page: ReorderPageState }) {
  const t = useTranslations('reorder.supply');
  const words = useProblemWords();
  const { session } = useServer();
  const { supplier, cost } = page;
  if (supplier === null) return null;
  const { timeZone, currency } = session.practice;
  const [hour = 0, minute = 0] = formatTime(session.now, timeZone).split(':').map(Number);
  const short = supplier.minimumMinor > cost.upFront && cost.upFront > 0;
  const found = problemAt(page.problem, 'deliveryAddress');
  return (
    <section className="py-2 border-t border-rule" aria-label={t('title')}>
      <p>
        {t('from', { name: supplier.name })}{' '}
        <span className="label">{t(leavesToday(supplier, hour * 60 + minute) ? 'today' : 'tomorrow', { time: formatMinuteOfDay(supplier.cutOffMinute) })}</span>
      </p>
      {short ? <Stated state="watch">{t('minimum', { least: formatMoney(supplier.minimumMinor, currency) })}</Stated> : null}
      {supplier.toWearers ? (
        <Field
          label={t('straight')}
          value={page.deliveryAddress}
          onValue={page.setDeliveryAddress}
          hint={t('straightHint')}
          problem={found ? words(found.code, found.data) : null}
          autoComplete="off"
        />
      ) : null}
    </section>
  );
}
