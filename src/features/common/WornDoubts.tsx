'use client';
import { useTranslations } from 'use-intl';
import type { WornDoubt } from '@/core';
import { formatDay } from '@/i18n/format';
import { Stated } from '@/ui/marks';
import { useEyeWords } from './eyeWords';

/** What does not go together on record, said before anything is measured through the lenses. */
export function WornDoubts({ doubts, powerOf }: { readonly doubts: readonly WornDoubt[]; readonly powerOf: (lensId: string) => string }) {
  const t = useTranslations('wornNow');
  const words = useDoubtWords(powerOf);
  if (doubts.length === 0) return null;
  return (
    <section className="px-6 py-3 border-t border-rule" aria-label={t('doubts')} data-testid="worn-doubts">
      <h2 className="mb-1">{t('doubts')}</h2>
      {doubts.map((doubt) => (
        <p key={JSON.stringify(doubt)} className="py-0.5">
          <Stated state="watch">{words(doubt)}</Stated>
        </p>
      ))}
    </section>
  );
}

function useDoubtWords(powerOf: (lensId: string) => string): (doubt: WornDoubt) => string {
  const t = useTranslations('wornNow');
  const purposes = useTranslations('purposes');
  const eyeWords = useEyeWords();
  const numberOf = (number: number | null): string => (number === null ? 'none' : String(number));
  return (doubt) => {
    switch (doubt.code) {
      case 'orderedOther':
        return t('doubt.orderedOther', { eye: eyeWords.name(doubt.eye), number: doubt.number, power: powerOf(doubt.lensId) });
      case 'usedUp':
        return t('doubt.usedUp', {
          eye: doubt.eyes.length === 2 ? t('bothEyes') : eyeWords.name(doubt.eyes[0] ?? 'right'),
          until: formatDay(doubt.until),
          days: doubt.days,
        });
      case 'differentOrders':
        return t('doubt.differentOrders', { right: numberOf(doubt.right), left: numberOf(doubt.left) });
      case 'differentPurposes':
        return t('doubt.differentPurposes', { right: purposes(doubt.right), left: purposes(doubt.left) });
      case 'sellerVerified':
        return t('doubt.sellerVerified', { eye: doubt.eyes.length === 2 ? t('bothEyes') : eyeWords.name(doubt.eyes[0] ?? 'right'), day: formatDay(doubt.on) });
      case 'saidOtherwise':
        return t('doubt.saidOtherwise', { eye: eyeWords.name(doubt.eye), day: formatDay(doubt.on), answer: t(`answers.${doubt.answer}`) });
    }
  };
}
