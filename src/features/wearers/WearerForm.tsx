'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { parseDay } from '@/core';
import { formatDay } from '@/i18n/format';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { problemAt, useProblemWords } from '../common/words';

export interface WearerInput {
  readonly name: string;
  readonly birthDate: string;
  readonly telephone: string;
  readonly occupation: string;
  readonly guardian: string;
}
const EMPTY: WearerInput = { name: '', birthDate: '', telephone: '', occupation: '', guardian: '' };

/** Identity of a wearer; name and birth date are asked, the rest helps. */
export function WearerForm({
  initial = EMPTY,
  problem,
  busy,
  doWords,
  onSubmit,
  onCancel,
  again,
}: {
  readonly initial?: WearerInput;
  readonly problem: Problem | null;
  readonly busy: boolean;
  readonly doWords: string;
  readonly onSubmit: (input: WearerInput) => void;
  readonly onCancel?: () => void;
  /** Offered when a wearer of this name and birth date exists. */
  readonly again?: (input: WearerInput) => void;
}) {
  const t = useTranslations('wearerForm');
  const words = useProblemWords();
  const [input, setInput] = useState(initial);
  const set = (key: keyof WearerInput) => (value: string) => setInput({ ...input, [key]: value });
  const at = (path: string) => {
    const p = problemAt(problem, path);
    return p ? words(p.code, p.data) : null;
  };
  const day = parseDay(input.birthDate);
  const repairs = problemAt(problem, 'birthDate')?.repairs ?? (!day.ok ? day.error.repairs : []);
  const exists = problemAt(problem, 'name')?.code === 'wearerExists';
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    onSubmit(input);
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-2 max-w-[440px]">
      <Field label={t('name')} value={input.name} onValue={set('name')} problem={at('name')} autoFocus autoComplete="off" />
      {exists && again ? <Button onClick={() => again(input)}>{t('another')}</Button> : null}
      <Field
        label={t('birthDate')}
        value={input.birthDate}
        onValue={set('birthDate')}
        problem={at('birthDate')}
        hint={day.ok ? formatDay(day.value) : t('birthHint')}
        autoComplete="off"
      />
      {repairs.length > 0 ? (
        <div className="flex gap-3">
          {repairs.map((r) => (
            <button key={r} type="button" className="btn btn-quiet" onClick={() => set('birthDate')(r)}>
              {t('use', { day: formatDay(r) })}
            </button>
          ))}
        </div>
      ) : null}
      <Field label={t('telephone')} value={input.telephone} onValue={set('telephone')} problem={at('telephone')} inputMode="tel" autoComplete="off" />
      <Field label={t('occupation')} value={input.occupation} onValue={set('occupation')} problem={at('occupation')} autoComplete="off" />
      <Field label={t('guardian')} value={input.guardian} onValue={set('guardian')} problem={at('guardian')} hint={t('guardianHint')} autoComplete="off" />
      <div className="flex gap-3 justify-end">
        {onCancel ? <Button onClick={onCancel}>{t('cancel')}</Button> : null}
        <Button look="act" type="submit" keys={['⏎']} disabled={busy}>
          {doWords}
        </Button>
      </div>
    </form>
  );
}
