'use client';
import { useMemo } from 'react';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { breakEvenDays, costOf, daysOf, packsOf, pricesOf, type Eye, type YearlyCost } from '@/core';
import { formatMoney } from '@/i18n/format';
import { Stated } from '@/ui/marks';
import { PeroxideCaution } from '../../common/PeroxideCaution';
import type { Family } from './candidates';
import { onSale, type CareProduct } from './cost';
import dynamic from 'next/dynamic';

// The chart's library comes only with a chart.
const CostChart = dynamic(() => import('./CostChart').then((m) => m.CostChart), { ssr: false });
import { useVisit } from './VisitProvider';

export interface CostOption {
  readonly key: string;
  readonly name: string;
  readonly family: Pick<Family, 'modality' | 'packSize' | 'packPriceMinor' | 'rebateMinor'>;
}
const DAYS = [1, 2, 3, 4, 5, 6, 7];

/** What a year of up to three choices costs at the days this wearer wears lenses, and where two of them cost the same. */
export function CostOfYear({
  options,
  needs,
  product,
  onProduct,
  chart = false,
}: {
  readonly options: readonly CostOption[];
  readonly needs: Readonly<Record<Eye, unknown>>;
  readonly product: CareProduct | null;
  /** Chooses another care product; absent where it cannot be chosen. */
  readonly onProduct?: (productId: string) => void;
  readonly chart?: boolean;
}) {
  const t = useTranslations('cost');
  const tOf = useWordsOf('cost');
  const { record, health } = useVisit();
  const { days, said } = daysOf(health.answers);
  const { settings, practice } = record.session;
  const prices = useMemo(() => pricesOf(settings, product), [settings, product]);
  const money = useMemo(
    () =>
      (minor: number): string =>
        formatMoney(minor, practice.currency),
    [practice.currency],
  );
  const whole = useMemo(
    () =>
      (units: number): string =>
        formatMoney(Math.round(units) * 100, practice.currency).replace(/[.,]00$/, ''),
    [practice.currency],
  );
  const columns = options.map((o) => ({ ...o, cost: costOf(o.family, needs, days, prices) }));
  const lines = options.map((o) => ({ name: o.name, values: DAYS.map((d) => costOf(o.family, needs, d, prices).net / 100) }));
  if (columns.length === 0) return null;
  const rebates = columns.some((c) => c.cost.rebate > 0);
  const rows: readonly (readonly [string, (c: YearlyCost) => string])[] = [
    ['packs', (c) => String(c.packs)],
    ['lenses', (c) => money(c.lenses)],
    ['care', (c) => money(c.care)],
    ['fees', (c) => money(c.fees)],
    ['upFront', (c) => money(c.upFront)],
    ...(rebates ? ([['rebate', (c: YearlyCost) => (c.rebate > 0 ? `−${money(c.rebate)}` : money(0))]] as const) : []),
  ];
  const daily = options.find((o) => o.family.modality === 'daily');
  const kept = options.find((o) => o.family.modality !== 'daily');
  const even =
    daily && kept && kept.family.modality !== 'daily'
      ? breakEvenDays(packsOf(daily.family, needs), kept.family.modality, packsOf(kept.family, needs), prices)
      : undefined;
  const products = onSale(record);
  const keepsAny = columns.some((c) => c.family.modality !== 'daily');
  return (
    <section data-testid="cost">
      <h2>{t('title')}</h2>
      <p className="label mb-2">{said ? t('days', { days }) : t('assumedDays', { days })}</p>
      <table className="w-full">
        <thead>
          <tr>
            <th aria-label={t('what')} />
            {columns.map((c) => (
              <th key={c.key} className="note text-right font-[420]" scope="col">
                {c.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([what, show]) => (
            <tr key={what}>
              <th scope="row" className="label text-left font-[420]">
                {tOf(`rows.${what}`)}
              </th>
              {columns.map((c) => (
                <td key={c.key} className="text-right">
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
              <td key={c.key} className="text-right font-[620]" data-testid={`net-${c.key}`}>
                {money(c.cost.net)}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      {keepsAny ? <PeroxideCaution product={product} /> : null}
      {even === undefined ? null : <p className="mt-2">{even === null ? t('dailiesLess') : t('even', { days: even.toFixed(1) })}</p>}
      {chart ? <CostChart lines={lines} label={t('chart')} daysLabel={t('chartDays')} money={whole} /> : null}
      {keepsAny && products.length > 0 ? (
        onProduct ? (
          <label className="note block mt-2">
            {t('product')}{' '}
            <select className="choice" value={product?.productId ?? ''} onChange={(event) => onProduct(event.target.value)}>
              {products.map((p) => (
                <option key={p.productId} value={p.productId}>
                  {t('productOption', { name: p.name, price: money(p.priceMinor), days: p.lastsDays })}
                </option>
              ))}
            </select>
          </label>
        ) : product ? (
          <p className="note mt-2">{t('productShown', { name: product.name, contents: product.contents })}</p>
        ) : null
      ) : null}
      {prices.fitFee + prices.aftercareYear === 0 || (keepsAny && products.length === 0) ? (
        <p className="mt-2">
          <Stated state="watch">{t('notSet')}</Stated>
        </p>
      ) : null}
      <p className="note mt-2">{t('rule')}</p>
    </section>
  );
}
