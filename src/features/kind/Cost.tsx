'use client';
import { useTranslations } from 'use-intl';
import { breakEvenDays, yearlyCost, type CostPack, type CostPrices, type Kind, type YearlyCost } from '@/core';
import { formatMoney } from '@/i18n/format';
import { Stated } from '@/ui/marks';
import { useKindName } from '../common/visit/kindWords';
import { useVisit } from '../common/visit/VisitProvider';
import { firstFamily, packsOf, pricesOf, type Needs } from './model';

/** Days a week taken when nobody was asked yet. */
const ASSUMED_DAYS = 7;

/** What a year of both kinds costs at the days this wearer wears lenses, and where the two cost the same. */
export function Cost({ first, second, needs }: { readonly first: Kind; readonly second: Kind | null; readonly needs: Needs }) {
  const t = useTranslations('cost');
  const kindName = useKindName();
  const { record, health } = useVisit();
  const said = health.answers.daysPerWeek?.value;
  const days = typeof said === 'number' ? said : ASSUMED_DAYS;
  const prices = pricesOf(record.house.settings);
  const columns = [first, second].flatMap((kind) => {
    const family = kind && firstFamily(record, kind, needs);
    if (!kind || !family) return [];
    const packs = packsOf(family, needs);
    return [{ kind, packs, cost: yearlyCost(kind.modality, packs, days, prices) }];
  });
  if (columns.length === 0) return null;
  const money = (minor: number): string => formatMoney(minor, record.house.practice.currency);
  const rows: readonly (readonly [string, (c: YearlyCost) => string])[] = [
    ['packs', (c) => String(c.packs)],
    ['lenses', (c) => money(c.lenses)],
    ['care', (c) => money(c.care)],
    ['fees', (c) => money(c.fees)],
  ];
  const even = crossing(columns, prices);
  return (
    <section className="mt-5" data-testid="cost">
      <h2>{t('title')}</h2>
      <p className="label mb-2">{typeof said === 'number' ? t('days', { days }) : t('assumedDays', { days })}</p>
      <table className="w-full">
        <thead>
          <tr>
            <th aria-label={t('what')} />
            {columns.map((c) => (
              <th key={c.kind.modality} className="note text-right font-[420]" scope="col">
                {kindName(c.kind)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([what, show]) => (
            <tr key={what}>
              <th scope="row" className="label text-left font-[420]">
                {t(`rows.${what as 'packs'}`)}
              </th>
              {columns.map((c) => (
                <td key={c.kind.modality} className="text-right">
                  {show(c.cost)}
                </td>
              ))}
            </tr>
          ))}
          <tr className="border-t border-rule-2">
            <th scope="row" className="text-left">
              {t('net')}
            </th>
            {columns.map((c) => (
              <td key={c.kind.modality} className="text-right font-[620]" data-testid={`net-${c.kind.modality}`}>
                {money(c.cost.net)}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      {even === undefined ? null : <p className="mt-2">{even === null ? t('dailiesLess') : t('even', { days: even.toFixed(1) })}</p>}
      {prices.fitFee + prices.aftercareYear + prices.solutionMonth === 0 ? (
        <p className="mt-2">
          <Stated state="watch">{t('notSet')}</Stated>
        </p>
      ) : null}
      <p className="note mt-2">{t('rule')}</p>
    </section>
  );
}

type Column = { readonly kind: Kind; readonly packs: readonly CostPack[] };

/** Days a week at which the daily and the reusable of two columns cost the same; undefined when they are of one sort. */
function crossing(columns: readonly Column[], prices: CostPrices): number | null | undefined {
  const daily = columns.find((c) => c.kind.modality === 'daily');
  const other = columns.find((c) => c.kind.modality !== 'daily');
  if (!daily || !other || other.kind.modality === 'daily') return undefined;
  return breakEvenDays(daily.packs, other.kind.modality, other.packs, prices);
}
