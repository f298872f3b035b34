import { useTranslations } from 'use-intl';
import type { AnswerValue, FactKind, TimelineWhat } from '@/core';
import { formatDay } from '@/i18n/format';
import { useWordsOf } from '@/i18n/wordsOf';
import { useAnswerWords } from '../common/answerWords';
import { joined, numeric, text, type Data } from './data';
import type { LensWords } from './lensWords';

/** What is no fact of a visit in words. */
export function useOtherWords(lenses: LensWords): Readonly<Record<Exclude<TimelineWhat, FactKind>, (d: Data) => string>> {
  const t = useTranslations('file');
  const of = useWordsOf('file');
  const rules = useWordsOf('ruleNames');
  const kinds = useWordsOf('today');
  const purposes = useWordsOf('purposes');
  const answers = useAnswerWords();
  const prescribed = (d: Data): string =>
    [
      t('until', { number: numeric(d['number']), purpose: purposes(text(d['purpose'])), day: formatDay(text(d['expiresOn'])) }),
      ...Object.values(d['lenses'] ?? {}).map(lenses.name),
    ].join('; ');

  return {
    visitOpened: (d) => kinds(`kind.${text(d['kind'])}`),
    visitClosed: (d) => kinds(`kind.${text(d['kind'])}`),
    historyAnswer: (d) => {
      const value = d['value'] === null ? '' : answers.answer(text(d['question']), d['value'] as AnswerValue);
      return t('seen', { sign: answers.name(text(d['question'])), value: joined(value, text(d['note'])) });
    },
    stopOpened: (d) => rules(text(d['rule'])),
    stopEnded: (d) => rules(text(d['rule'])),
    stopOverridden: (d) => rules(text(d['rule'])),
    referral: (d) => text(d['to']),
    kindDecided: (d) => joined(of(`modalities.${text(d['modality'])}`), of(`wear.${text(d['wear'])}`)),
    prescription: prescribed,
    prescriptionCopy: (d) => t('seen', { sign: t('number', { number: numeric(d['number']) }), value: of(`copies.${text(d['how'])}`) }),
    outsidePrescription: (d) => text(d['fileName']),
    sellersRequest: (d) => text(d['seller']),
    order: (d) => t('number', { number: numeric(d['number']) }),
    orderEvent: (d) => t('orderState', { number: numeric(d['number']), state: of(`states.${text(d['state'])}`) }),
    orderReceipt: (d) => t('orderReceipt', { number: numeric(d['number']), lens: lenses.name(d['lensId']), lot: text(d['lot']) }),
    lessonSignedOff: () => '',
    appointment: (d) => t('appointmentLine', { kind: kinds(`kind.${text(d['kind'])}`), state: of(`appointmentStates.${text(d['state'])}`) }),
    picture: (d) => text(d['title']),
    identityChange: () => '',
    examinedElsewhere: (d) => joined(text(d['by']), formatDay(text(d['on']))),
  };
}
