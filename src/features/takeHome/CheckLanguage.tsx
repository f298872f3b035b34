'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { formatDay } from '@/i18n/format';
import { wordsMark } from '../common/takeHome/words';
import { problemAt, useProblemWords } from '../common/words';
import type { Desk } from './useHomeDesk';

/** Who of the language's speakers looked at these very words, and when. */
export function CheckLanguage({ at, name }: { readonly at: Desk; readonly name: string }) {
  const t = useTranslations('takeHomeDesk');
  const words = useProblemWords();
  const [speaker, setSpeaker] = useState('');
  const [checkedOn, setCheckedOn] = useState(formatDay(at.desk.session.today));
  const { send, problem } = at.sending;
  const wrong = (field: string): string | null => {
    const found = problemAt(problem, field);
    return found ? words(found.code, found.data) : null;
  };
  const keep = (event: FormEvent): void => {
    event.preventDefault();
    void send('checkLanguage', { language: at.language, words: wordsMark(at.language), speaker, checkedOn });
  };
  return (
    <details>
      <summary>{t('checkTitle', { language: name })}</summary>
      <form onSubmit={keep} className="flex flex-col gap-2 py-2">
        <Field label={t('speaker')} value={speaker} onValue={setSpeaker} problem={wrong('speaker')} autoComplete="off" maxLength={120} />
        <Field label={t('checkedOn')} value={checkedOn} onValue={setCheckedOn} problem={wrong('checkedOn')} autoComplete="off" maxLength={30} />
        <Button type="submit" disabled={at.busy}>
          {t('checkDo')}
        </Button>
      </form>
    </details>
  );
}
