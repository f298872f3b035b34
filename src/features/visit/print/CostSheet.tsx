'use client';
import { useSearchParams } from 'next/navigation';
import { useTranslations } from 'use-intl';
import { daysOf } from '@/core';
import { asShortlisted, needsOf, productOf } from '../shell/candidates';
import { CostOfYear } from '../shell/CostOfYear';
import { useVisit } from '../shell/VisitProvider';
import { PrintSheet } from './PrintSheet';
import costWords from '@/i18n/messages/en/cost.messages.json';
import kindWords from '@/i18n/messages/en/kind.messages.json';
import peroxideWords from '@/i18n/messages/en/peroxide.messages.json';
import printWords from '@/i18n/messages/en/print.messages.json';
import signsWords from '@/i18n/messages/en/signs.messages.json';
import { withWords } from '@/i18n/withWords';
import stopsWords from '@/i18n/messages/en/stops.messages.json';

const MOST = 3;

/** What a year costs, for the wearer to take home: up to three lenses, the care product, and where they cost the same. */
function CostSheetPage() {
  const t = useTranslations('cost');
  const { record, eye, health } = useVisit();
  const { days, said } = daysOf(health.answers);
  const asked = useSearchParams();
  const product = productOf(record, asked.get('product') ?? undefined);
  const codes = (asked.get('families') ?? '').split(',').slice(0, MOST);
  const families = codes.flatMap((code) => record.families.filter((f) => f.code === code));
  return (
    <PrintSheet title={t('pageTitle')} back="lens" reader="wearer">
      {families.length === 0 ? (
        <p>{t('pageNone')}</p>
      ) : (
        <>
          <p>{said ? t('pageLine', { days }) : t('pageLineAssumed')}</p>
          <CostOfYear options={families.map((f) => ({ key: f.code, name: f.name, family: asShortlisted(f) }))} needs={needsOf(eye)} product={product} chart />
          <p>{t('pageCare')}</p>
        </>
      )}
    </PrintSheet>
  );
}

export const CostSheet = withWords(
  { stops: stopsWords, cost: costWords, kind: kindWords, peroxide: peroxideWords, print: printWords, signs: signsWords },
  CostSheetPage,
);
