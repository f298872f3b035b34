'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { formatRefraction, type Eye, type OrderReceiptRow } from '@/core';
import { formatDay } from '@/i18n/format';
import eyesWords from '@/i18n/messages/en/eyes.messages.json';
import orderPageWords from '@/i18n/messages/en/orderPage.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { useEyeWords } from '../common/eyeWords';
import type { OrderData } from './OrderDetail';

export interface BagLabelsProps {
  readonly data: OrderData;
  /** Each with its code, an SVG document. */
  readonly labels: readonly { readonly eye: Eye; readonly receipt: OrderReceiptRow; readonly code: string }[];
}

/** Labels for the bags that wait for the wearer: the eye largest, for two bags beside each other. */
function BagLabelsPage({ data, labels }: BagLabelsProps) {
  const t = useTranslations('orderPage');
  const eyeWords = useEyeWords();
  const { order, wearer, lenses } = data;
  return (
    <div className="paper-page">
      <div className="paper-bar">
        <Link className="btn" href={`/orders/${order.id}`} prefetch={false}>
          {t('title', { number: order.number })}
        </Link>
        <Button look="act" onClick={() => window.print()}>
          {t('print')}
        </Button>
      </div>
      <main className="paper">
        <h1 className="sr-only">{t('labels')}</h1>
        {labels.length === 0 ? <p>{t('noLabels')}</p> : null}
        <div className="bag-labels">
          {labels.map(({ eye, receipt, code }) => {
            const lens = lenses[receipt.lensId];
            return (
              <section key={receipt.id} className="bag-label" data-testid={`label-${eye}`} data-eye={eye} aria-label={eyeWords.name(eye)}>
                <b className="bag-eye">{eye === 'right' ? 'R' : 'L'}</b>
                <div>
                  <p className="power">{wearer.name}</p>
                  <p>{`${formatDay(wearer.birthDate)} · ${t('title', { number: order.number })}`}</p>
                  <p className="power">
                    {lens
                      ? [formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }), lens.addBand].filter(Boolean).join(' ')
                      : t('raw')}
                  </p>
                  <p>{[lens?.familyName, eyeWords.aim(order.lines.find((l) => l.eye === eye)?.aim)].filter(Boolean).join(' · ')}</p>
                  <p className="label">{t('labelLine', { packs: receipt.packs, lot: receipt.lot, day: formatDay(receipt.expiresOn) })}</p>
                </div>
                {/* eslint-disable-next-line @next/next/no-img-element -- drawn here: nothing to fetch or to optimise */}
                <img className="bag-code" alt={t('labelCode', { eye: eyeWords.name(eye) })} src={`data:image/svg+xml;base64,${btoa(code)}`} />
              </section>
            );
          })}
        </div>
      </main>
    </div>
  );
}

export const BagLabels = withWords({ orderPage: orderPageWords, eyes: eyesWords }, BagLabelsPage);
