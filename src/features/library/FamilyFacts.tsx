'use client';
import { useTranslations } from 'use-intl';
import { formatMoney } from '@/i18n/format';
import type { FamilyPage } from '@/services/family/queries';
import { useServer } from '../common/ServerProvider';

/** What the catalogue says of a version, beside what stands in the strip. */
export function FamilyFacts({ shown }: { readonly shown: FamilyPage['versions'][number] }) {
  const t = useTranslations('library');
  const ofFamily = useTranslations('family');
  const { currency } = useServer().session.practice;
  const unknown = ofFamily('unknown');
  const facts = [
    ['maker', shown.maker],
    ['water_percent', shown.waterPercent ?? unknown],
    ['dk', shown.dk ?? unknown],
    ['modulus_mpa', shown.modulusMpa ?? unknown],
    ['min_age', shown.minAge ?? ofFamily('labelNone')],
    ...(shown.myopiaHours === null
      ? []
      : ([
          ['myopia_hours', shown.myopiaHours],
          ['myopia_days', shown.myopiaDays ?? unknown],
        ] as const)),
    ['pack_size', ofFamily('pack', { size: shown.packSize, price: formatMoney(shown.packPriceMinor, currency) })],
    ['rebate', formatMoney(shown.rebateMinor, currency)],
    ['lead_days', ofFamily('daysCount', { count: shown.leadDays })],
    ['stabilisation', shown.stabilisation ? t(`options.${shown.stabilisation}`) : t('notSaid')],
    ['rotation_mean', shown.rotationMean === null ? t('ofTheKind') : t('turn', { mean: shown.rotationMean, sd: shown.rotationSd ?? 0 })],
  ] as const;
  return (
    <dl className="facts">
      {facts.map(([column, value]) => (
        <div key={column}>
          <dt className="label">{t(`columns.${column}`)}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}
