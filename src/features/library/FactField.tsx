'use client';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import type { FAMILY_COLUMNS } from '@/schema/catalogue';
import { Field, ProblemLine } from '@/ui/Field';
import { CHOICES } from './editing';

/** One fact of a family: typed, or chosen where there are only so many answers. */
export function FactField({
  column,
  value,
  fault,
  onValue,
}: {
  readonly column: (typeof FAMILY_COLUMNS)[number];
  readonly value: string;
  readonly fault: string | null;
  readonly onValue: (value: string) => void;
}) {
  const t = useTranslations('library');
  const tOf = useWordsOf('library');
  const options = CHOICES[column];
  if (!options) return <Field label={t(`columns.${column}`)} value={value} onValue={onValue} problem={fault} autoComplete="off" />;
  return (
    <label className="field">
      <span className="field-label">{t(`columns.${column}`)}</span>
      <select className="choice w-full h-10" value={value} onChange={(event) => onValue(event.target.value)}>
        {options.map((o) => (
          <option key={o} value={o}>
            {o === '' ? t('notSaid') : tOf(`options.${o}`)}
          </option>
        ))}
      </select>
      <span className="field-note">{fault ? <ProblemLine>{fault}</ProblemLine> : null}</span>
    </label>
  );
}
