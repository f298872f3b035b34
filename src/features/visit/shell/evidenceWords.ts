import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { DKT_LIMITS, sign, type Evidence, type Findings, type SignId } from '@/core';
import { useServer } from '../../common/ServerProvider';
import { useEyeWords } from '../../common/eyeWords';
import { useAnswerWords } from '../../common/answerWords';

/** A finding's value in words: `2.5 past mild`, `11.7 mm`, `hurts`. */
export function useFindingWords(): (id: string, value: Findings[SignId]) => string {
  const t = useTranslations('signs');
  const tOf = useWordsOf('signs');
  return (id, value) => {
    const s = sign(id);
    if (value === undefined) return '';
    if (typeof value === 'string') return tOf(`words.${value}`);
    if (s?.kind === 'grade') return `${value.toFixed(1)} ${tOf(`grades.g${Math.round(value * 10)}`)}`;
    const unit = s?.kind === 'measure' ? s.unit : '';
    return unit === '' ? String(value) : t(`units.${unit}`, { value });
  };
}

/** Where a rule found what it asks, in words: `R Lid margin 2.5 past mild`, `Last worn: never`. */
export function useEvidenceWords(): (e: Evidence) => string {
  const signs = useWordsOf('signs');
  const kind = useTranslations('kind.evidence');
  const kindOf = useWordsOf('kind.evidence');
  const answers = useAnswerWords();
  const groupWords = useWordsOf('answers.medicineGroups');
  const finding = useFindingWords();
  const eyes = useEyeWords();
  const { session } = useServer();
  return (e) => {
    if (e.from === 'eye') return `${e.eye ? eyes.short(e.eye) : ''} ${signs(e.key)} ${finding(e.key, e.value as number | string)}`;
    if (e.from === 'library') return kind('dktAsked', { limit: DKT_LIMITS[session.settings.oxygenSchool].day });
    if (e.from === 'person' || e.from === 'power') return kindOf(e.key, { value: typeof e.value === 'number' ? Math.round(e.value * 100) / 100 : 0 });
    if (e.key === 'medicineGroups') {
      const groups = (Array.isArray(e.value) ? e.value : []) as readonly string[];
      return `${answers.name('medicines')}: ${groups.map((g) => groupWords(g)).join('; ')}`;
    }
    return `${answers.name(e.key)}: ${answers.answer(e.key, e.value)}`;
  };
}
