'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { parseDay, type ClosedDay } from '@/core';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { problemAt, useProblemWords } from '../common/words';
import { useRoomsCommand } from './useRoomsCommand';

/** Holidays and other days on which the practice is closed. */
export function ClosedDays({ days, mayChange }: { readonly days: readonly ClosedDay[]; readonly mayChange: boolean }) {
  const t = useTranslations('rooms');
  const words = useProblemWords();
  const { send, problem, busy } = useRoomsCommand();
  const [day, setDay] = useState('');
  const [name, setName] = useState('');
  const read = parseDay(day);
  const at = (path: string): string | null => {
    const found = problemAt(problem, path);
    return found ? words(found.code, found.data) : null;
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (!(await send('setClosedDay', { day, name, closed: true }))) return;
    setDay('');
    setName('');
  };
  return (
    <section className="px-6 py-3 max-w-[760px]">
      <h2 className="settings-group">{t('holidays')}</h2>
      <p className="label">{t('holidaysLine')}</p>
      {days.length === 0 ? <p className="py-2">{t('noHolidays')}</p> : null}
      <ul>
        {days.map((closed) => (
          <li key={closed.day} className="flex gap-4 items-baseline border-b border-rule py-2">
            <span className="value w-40">{formatDay(closed.day)}</span>
            <span>{closed.name}</span>
            <span className="ml-auto" />
            {mayChange ? (
              <Button look="quiet" disabled={busy} onClick={() => void send('setClosedDay', { ...closed, closed: false })}>
                {t('openAfterAll')}
              </Button>
            ) : null}
          </li>
        ))}
      </ul>
      {mayChange ? (
        <form className="flex gap-3 items-end pt-3" onSubmit={(event) => void submit(event)}>
          <Field
            className="w-48"
            label={t('day')}
            value={day}
            onValue={setDay}
            problem={at('day')}
            hint={read.ok ? formatDay(read.value) : t('dayHint')}
            autoComplete="off"
          />
          <Field className="w-64" label={t('dayName')} value={name} onValue={setName} problem={at('name')} autoComplete="off" />
          <Button type="submit" className="mb-[20px]" disabled={busy}>
            {t('addHoliday')}
          </Button>
        </form>
      ) : null}
    </section>
  );
}
