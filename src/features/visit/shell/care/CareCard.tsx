import { useTranslations } from 'use-intl';
import type { CareFinding } from '@/core';
import { Stated } from '@/ui/marks';
import { useVisit } from '../VisitProvider';
import type { VisitRecord } from '../visitData';

/** What is to be said of a product with these lenses; what stops it comes first. */
export function CareFindings({ findings, name }: { readonly findings: readonly CareFinding[]; readonly name: string }) {
  const t = useTranslations('careSystem');
  return findings.map((f) => (
    <p key={f.fault} className="py-1">
      <Stated state={f.gravity === 'watch' ? 'watch' : 'stop'}>{t(`faults.${f.fault}`, { name })}</Stated>
    </p>
  ));
}

/** A care system's card: what its label says, for whoever teaches it. */
export function CareCard({ product }: { readonly product: VisitRecord['careProducts'][number] }) {
  const t = useTranslations('careSystem');
  const { record } = useVisit();
  const { soakMinutes: soak } = product;
  const time = (minutes: number): string => {
    if (minutes % 60 === 0) return t('hours', { count: minutes / 60 });
    return minutes < 60 ? t('minutes', { count: minutes }) : t('hoursMinutes', { hours: Math.floor(minutes / 60), minutes: minutes % 60 });
  };
  const rows: readonly (readonly ['soak' | 'store' | 'discard' | 'catalyst' | 'case', string | null])[] = [
    ['soak', soak === null ? null : t('soak', { time: time(soak) })],
    ['store', product.storeDays === null ? null : t('store', { days: product.storeDays })],
    ['discard', product.discardDays === null ? null : t('discard', { days: product.discardDays })],
    ['catalyst', product.catalystDays === null ? null : t('catalyst', { days: product.catalystDays })],
    ['case', product.system === 'peroxide' ? t('ownCase') : t('ordinaryCase', { months: record.session.settings.caseMonths === 'one' ? 1 : 3 })],
  ];
  return (
    <dl className="terms" data-testid="care-card">
      {rows.map(([what, says]) =>
        says === null ? null : (
          <div key={what} className="contents">
            <dt>{t(`dt.${what}`)}</dt>
            <dd>{says}</dd>
          </div>
        ),
      )}
    </dl>
  );
}
