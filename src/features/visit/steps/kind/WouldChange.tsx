'use client';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { ADVISED_MODALITIES, DKT_LIMITS, INFECTIONS_PER_10000, type WouldChange } from '@/core';
import { useAnswerWords } from '../../../common/answerWords';
import { useVisit } from '../../shell/VisitProvider';
import type { KindAdvice } from './useKind';

/** What would make it another kind, and what nights ask. */
export function WouldBe({ kind }: { readonly kind: KindAdvice }) {
  const t = useTranslations('kind');
  const tOf = useWordsOf('kind');
  const { record } = useVisit();
  const { advice, would, night } = kind;
  return (
    <div className="would" data-testid="would">
      {ADVISED_MODALITIES.filter((m) => m !== advice.recommended?.kind.modality).map((m) => (
        <div key={m} data-testid={`would-${m}`}>
          <strong>{t(`wouldBe.${m}`)}</strong>
          {would[m].length === 0 ? <p>{t('nothingWould')}</p> : null}
          <ul>
            {would[m].map((w) => (
              <li key={w.question}>
                <Would question={w.question} to={w.to} />
              </li>
            ))}
          </ul>
        </div>
      ))}
      <div data-testid="night">
        <strong>{night ? t('overnight') : t('overnightOffered')}</strong>
        <p>
          {night ? `${tOf(`why.${night.why}`, { limit: DKT_LIMITS[record.session.settings.oxygenSchool].overnight })}. ` : ''}
          {t('risk', {
            day: INFECTIONS_PER_10000.siliconeHydrogelDay,
            night: INFECTIONS_PER_10000.siliconeHydrogelOvernight,
            softDay: INFECTIONS_PER_10000.softDay,
            softNight: INFECTIONS_PER_10000.softOvernight,
            daily: INFECTIONS_PER_10000.dailyDisposable,
          })}
        </p>
        {night ? null : <p>{t('nightVisits')}</p>}
        <p className="note">{t('riskSource')}</p>
      </div>
    </div>
  );
}

function Would({ question, to }: WouldChange) {
  const t = useTranslations('kind');
  const words = useAnswerWords();
  return <>{t('would', { question: words.name(question), answer: words.answer(question, to) })}</>;
}
