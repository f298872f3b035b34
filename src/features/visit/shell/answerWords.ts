import { useTranslations } from 'use-intl';
import { question, type AnswerValue } from '@/core';

/** Answers of the history in words. */
export function useAnswerWords() {
  const t = useTranslations('answers');
  const name = (id: string): string => t(`q.${id as 'danger'}.name`);
  const option = (id: string, value: string): string => t(`q.${id as 'danger'}.o.${value as 'none'}`);
  const answer = (id: string, value: AnswerValue): string => {
    const q = question(id);
    if (typeof value === 'number') return `${value} ${t(`unit.${id as 'daysPerWeek'}`)}`;
    if (typeof value === 'string') return q?.kind === 'one' ? option(id, value) : value;
    if (value.length === 0) return t('none');
    return value.map((v) => (q?.kind === 'many' ? option(id, v) : v)).join(', ');
  };
  return { name, option, answer };
}
