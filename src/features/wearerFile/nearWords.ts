import { useTranslations } from 'use-intl';
import type { FactKind } from '@/core';
import { useWordsOf } from '@/i18n/wordsOf';
import { joined, numeric, text, type Data } from './data';

/** Facts of near sight and of both eyes together, in words. */
export function useNearWords(): Readonly<Record<Extract<FactKind, 'nearFinding' | 'taskSight' | 'heldQuarter' | 'pairChange'>, (d: Data) => string>> {
  const t = useTranslations('file');
  const of = useWordsOf('file');
  return {
    nearFinding: (d) =>
      joined(
        of(`near.${text(d['sign'])}`),
        text(d['wordValue'])
          ? of(`nearWords.${text(d['wordValue'])}`)
          : t('nearNumber', { sign: text(d['sign']) === 'stereo' ? 'stereo' : 'cm', number: numeric(d['numberValue']) }),
        text(d['note']),
      ),
    taskSight: (d) =>
      joined(t('nearTask', { task: of(`near.${text(d['task'])}`), cm: numeric(d['distanceCm']), said: numeric(d['satisfaction']) }), text(d['acuityTyped'])),
    heldQuarter: (d) =>
      t('heldQuarter', { by: numeric(d['byD']) < 0 ? '−0.25' : '+0.25', task: of(`near.${text(d['task'])}`), answer: of(`held.${text(d['answer'])}`) }),
    pairChange: (d) => text(d['change']),
  };
}
