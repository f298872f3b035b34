'use client';
import { useTranslations } from 'use-intl';
import { EYES, unexplained, type Trouble } from '@/core';
import { useWordsOf } from '@/i18n/wordsOf';
import { Stated } from '@/ui/marks';
import { useEyeWords } from '../../../common/eyeWords';
import type { AftercarePage } from './useAftercare';

/** Causes and next steps that hold so far, each with its reason and where it comes from; then what nobody looked at. */
export function Pointed({ page }: { readonly page: AftercarePage }) {
  const t = useTranslations('aftercare');
  const words = useWordsOf('aftercare');
  const eyeWords = useEyeWords();
  const { pointed, open, facts } = page.state;
  const rest = EYES.flatMap((eye) => unexplained(facts, pointed, eye).map((trouble) => ({ eye, trouble: trouble as Trouble })));
  return (
    <>
      <h2 className="mb-2">{t('pointsTo')}</h2>
      {pointed.length === 0 ? <p className="mb-3">{t('nothingPoints')}</p> : null}
      <ul className="flex flex-col gap-3 mb-4" data-testid="pointed">
        {pointed.map(({ rule, eyes }) => (
          <li key={rule.id} data-testid={`points-${rule.id}`}>
            <Stated state="watch">
              {words(`r.${rule.id}.cause`)} <span className="label">{eyes.length === 0 ? t('ofWearer') : eyes.map(eyeWords.name).join(', ')}</span>
            </Stated>
            <p className="value">{t(`steps.${rule.step}`)}</p>
            <p className="note">{t('reason', { why: words(`r.${rule.id}.why`), mark: rule.source.mark, source: rule.source.text })}</p>
          </li>
        ))}
      </ul>
      {rest.map(({ eye, trouble }) => (
        <p key={`${eye} ${trouble}`} className="mb-2">
          <Stated state="watch">{t('unexplainedLine', { eye: eyeWords.name(eye), trouble: t(`trouble.${trouble}`) })}</Stated>
        </p>
      ))}
      {open.length === 0 ? null : (
        <>
          <h3 className="mb-1">{t('open')}</h3>
          <ul className="mb-4" data-testid="aftercare-open">
            {open.map(({ eye, what }) => (
              <li key={`${eye ?? ''} ${what}`}>
                {eye === null ? t(`openWhat.${what}`) : t('openLine', { eye: eyeWords.name(eye), what: t(`openWhat.${what}`) })}
              </li>
            ))}
          </ul>
        </>
      )}
      <h3 className="mb-1">{t('why')}</h3>
      <p className="mb-3">{t('whyText')}</p>
    </>
  );
}
