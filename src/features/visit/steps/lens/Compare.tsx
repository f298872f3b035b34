'use client';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import costWords from '@/i18n/messages/en/cost.messages.json';
import { withWords } from '@/i18n/withWords';
import { useWordsOf } from '@/i18n/wordsOf';
import { EYES, expectedOf, formatRefraction, type Eye, type Refraction } from '@/core';
import { formatMoney } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { EyeBadge } from '@/ui/marks';
import { curveFor, inDrawer } from '../../shell/candidates';
import type { CareProduct } from '../../shell/cost';
import { CostOfYear } from '../../shell/CostOfYear';
import { useVisit } from '../../shell/VisitProvider';
import { useExpectWords } from './expected';
import type { Row } from './model';

/** Up to three families side by side: what they do on these eyes, what they are made of, what they cost over this wearer's year. */
function ComparePart({
  rows,
  needs,
  meanK,
  product,
  onProduct,
  onRemove,
  onChoose,
}: {
  readonly rows: readonly Row[];
  readonly needs: Readonly<Record<Eye, Refraction | null>>;
  readonly meanK: Readonly<Record<Eye, number | null>>;
  readonly product: CareProduct | null;
  readonly onProduct: (id: string) => void;
  readonly onRemove: (code: string) => void;
  readonly onChoose: (code: string) => void;
}) {
  const t = useTranslations('lens');
  const tOf = useWordsOf('lens');
  const ofFamily = useTranslations('family');
  const cost = useTranslations('cost');
  const expectWords = useExpectWords();
  const { record } = useVisit();
  const codes = rows.map((r) => r.family.code).join(',');
  const options = rows.map((r) => ({ key: r.family.code, name: r.family.name, family: r.family }));
  const perEye = (show: (row: Row, eye: Eye, need: Refraction) => ReactNode) => (row: Row) =>
    EYES.map((e) => {
      const need = row.needs[e];
      return need ? (
        <div key={e} className="flex gap-2 items-center">
          <EyeBadge eye={e} /> <span>{row.best[e][0] ? show(row, e, need) : t('notMade')}</span>
        </div>
      ) : null;
    });
  const figure = (value: number | null): string => (value === null ? ofFamily('unknown') : String(value));
  const best = (row: Row, e: Eye) => row.best[e][0];
  const lines: readonly (readonly [string, (row: Row) => ReactNode])[] = [
    [
      'power',
      perEye((r, e) => <span className="font-mono whitespace-nowrap">{formatRefraction(best(r, e)?.power ?? { sphere: 0, cylinder: 0, axis: 180 })}</span>),
    ],
    [
      'curve',
      perEye((r, e) => {
        const lens = best(r, e);
        const curve = lens && curveFor(lens, meanK[e])?.curve;
        return curve ? `${curve.baseCurve.toFixed(1)} / ${curve.diameter.toFixed(1)}` : '';
      }),
    ],
    [
      'left',
      perEye((r, e) => <span className="font-mono whitespace-nowrap">{formatRefraction(best(r, e)?.residual ?? { sphere: 0, cylinder: 0, axis: 180 })}</span>),
    ],
    ['blur', perEye((r, e) => best(r, e)?.blur.toFixed(2))],
    [
      'expected',
      perEye((r, e, need) => {
        const lens = best(r, e);
        if (!lens) return '';
        const blur = expectedOf(r.family, need, lens);
        return expectWords(blur);
      }),
    ],
    [
      'drawer',
      perEye((r, e) => {
        const lens = best(r, e);
        return lens ? inDrawer(record, r.family.code, lens, null) : 0;
      }),
    ],
    ['worn', (r) => `${ofFamily(`modality.${r.family.modality}`)} · ${ofFamily(r.family.overnightApproved ? 'approved' : 'dayOnly')}`],
    ['material', (r) => r.family.material],
    ['oxygen', (r) => `${figure(r.family.dktCentre)} / ${figure(r.family.dktThickest)}`],
    ['mark', (r) => ofFamily(`marks.${r.family.markLayout}`)],
    ['settle', (r) => t('minutes', { count: r.family.settleMinutes })],
    ['label', (r) => (r.family.minAge === null ? ofFamily('labelNone') : t('labelFrom', { age: r.family.minAge }))],
    ['pack', (r) => ofFamily('pack', { size: r.family.packSize, price: formatMoney(r.family.packPriceMinor, record.session.practice.currency) })],
    ['lead', (r) => ofFamily('daysCount', { count: r.family.leadDays })],
  ];
  return (
    <div data-testid="compare">
      <table className="compare-table">
        <thead>
          <tr>
            <th aria-label={cost('what')} />
            {rows.map((r) => (
              <th key={r.family.code} scope="col">
                {r.family.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lines.map(([what, show]) => (
            <tr key={what}>
              <th scope="row" className="label font-[420]">
                {tOf(`rows.${what}`)}
              </th>
              {rows.map((r) => (
                <td key={r.family.code}>{show(r)}</td>
              ))}
            </tr>
          ))}
          <tr>
            <th aria-label={cost('what')} />
            {rows.map((r) => (
              <td key={r.family.code}>
                <div className="flex flex-wrap gap-3">
                  <Button onClick={() => onChoose(r.family.code)}>{cost('take', { family: r.family.name })}</Button>
                  <Button look="quiet" onClick={() => onRemove(r.family.code)}>
                    {t('compareRemove')}
                  </Button>
                </div>
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      <div className="mt-5">
        <CostOfYear options={options} needs={needs} product={product} onProduct={onProduct} chart />
      </div>
      <p className="mt-3">
        <Link className="btn btn-plain" href={`/visits/${record.visit.id}/print/cost?families=${codes}&product=${product?.productId ?? ''}`} prefetch={false}>
          {cost('page')}
        </Link>
      </p>
    </div>
  );
}

export const Compare = withWords({ cost: costWords }, ComparePart);
