import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { question, type AnswerValue } from '@/core';

/** Answers of the history in words. */
export function useAnswerWords() {
  const t = useTranslations('answers');
  const tOf = useWordsOf('answers');
  const name = (id: string): string => tOf(`q.${id}.name`);
  const option = (id: string, value: string): string => tOf(`q.${id}.o.${value}`);
  const answer = (id: string, value: AnswerValue): string => {
    const q = question(id);
    if (typeof value === 'number') return `${value} ${tOf(`unit.${id}`)}`;
    if (typeof value === 'string') return q?.kind === 'one' ? option(id, value) : value;
    if (value.length === 0) return t('none');
    return value.map((v) => (q?.kind === 'many' ? option(id, v) : v)).join(', ');
  };
  return { name, option, answer };
}
