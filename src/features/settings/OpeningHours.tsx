'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { formatMinuteOfDay, type WeekdayHours } from '@/core';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { problemAt, useProblemWords } from '../common/words';
import { useRoomsCommand } from './useRoomsCommand';

const WORDS = ['1', '2', '3', '4', '5', '6', '7'] as const;

/** The week: from when to when the practice is open. */
export function OpeningHours({ week, mayChange }: { readonly week: readonly WeekdayHours[]; readonly mayChange: boolean }) {
  const t = useTranslations('rooms');
  return (
    <section className="px-6 py-3 max-w-[760px]">
      <h2 className="settings-group">{t('hours')}</h2>
      <p className="label">{t('hoursLine')}</p>
      <ul>
        {week.map((hours) => (
          <Weekday key={`${hours.weekday} ${JSON.stringify(hours.opening)}`} hours={hours} mayChange={mayChange} />
        ))}
      </ul>
    </section>
  );
}

function Weekday({ hours: { weekday, opening }, mayChange }: { readonly hours: WeekdayHours; readonly mayChange: boolean }) {
  const t = useTranslations('rooms');
  const words = useProblemWords();
  const { send, problem, busy } = useRoomsCommand();
  const was = { opens: formatMinuteOfDay(opening?.opensMinute ?? 540), closes: formatMinuteOfDay(opening?.closesMinute ?? 1020) };
  const [opens, setOpens] = useState(was.opens);
  const [closes, setCloses] = useState(was.closes);
  const name = t(`weekdays.${WORDS[weekday - 1] ?? '1'}`);
  const at = (path: string): string | null => {
    const found = problemAt(problem, path);
    return found ? words(found.code, found.data) : null;
  };
  const changed = opens !== was.opens || closes !== was.closes;
  const save = (): void => void send('setOpeningHours', { weekday, closed: false, opens, closes });
  return (
    <li className="border-b border-rule pt-2" data-testid={`weekday-${weekday}`}>
      <form
        className="flex flex-wrap gap-3 items-start"
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <span className="value w-32 pt-2">{name}</span>
        {!mayChange || opening === null ? (
          <span className="pt-2 pb-5 w-60">{opening === null ? t('closed') : `${was.opens}–${was.closes}`}</span>
        ) : (
          <>
            <Field className="w-28" hideLabel label={t('opensOf', { weekday: name })} value={opens} onValue={setOpens} problem={at('opens')} mono />
            <Field className="w-28" hideLabel label={t('closesOf', { weekday: name })} value={closes} onValue={setCloses} problem={at('closes')} mono />
          </>
        )}
        {mayChange ? (
          <>
            {opening !== null && changed ? (
              <Button type="submit" disabled={busy}>
                {t('save')}
              </Button>
            ) : null}
            <span className="ml-auto" />
            <Button
              look="quiet"
              className="mt-2"
              disabled={busy}
              onClick={opening === null ? save : () => void send('setOpeningHours', { weekday, closed: true })}
            >
              {opening === null ? t('openDay') : t('closeDay')}
            </Button>
          </>
        ) : null}
      </form>
    </li>
  );
}
