'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { useServer } from '../common/ServerProvider';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import { useRoomsCommand } from './useRoomsCommand';

const FIELDS = ['name', 'town', 'address', 'telephone', 'emergencyTelephone'] as const;

/** What the practice is called and where it is reached. @param version the one that the page shows */
export function PracticeDetails({ version, mayChange }: { readonly version: number; readonly mayChange: boolean }) {
  const t = useTranslations('rooms');
  const { session } = useServer();
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { send, problem, busy } = useRoomsCommand();
  const { name, town, address, telephone, emergencyTelephone } = session.practice;
  const there = { name, town, address, telephone, emergencyTelephone: emergencyTelephone ?? '' };
  const [typed, setTyped] = useState(there);
  const changed = FIELDS.some((field) => typed[field].trim() !== there[field]);
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    void send('changePractice', { version, ...typed });
  };
  return (
    <section className="px-6 py-3 max-w-[760px]">
      <h2 className="settings-group">{t('practice')}</h2>
      <p className="label">{t('practiceLine')}</p>
      {mayChange ? null : <p className="value py-2">{FIELDS.map((field) => there[field]).join(' · ')}</p>}
      {mayChange ? (
        <form className="flex flex-wrap gap-x-3" onSubmit={submit} data-testid="practice">
          {FIELDS.map((field) => {
            const at = problemAt(problem, field);
            return (
              <Field
                key={field}
                className={field === 'address' ? 'w-full' : 'w-[360px]'}
                label={t(`practiceFields.${field}`)}
                value={typed[field]}
                onValue={(value) => setTyped({ ...typed, [field]: value })}
                problem={at ? words(at.code, at.data) : null}
                autoComplete="off"
              />
            );
          })}
          <Button type="submit" className="self-end mb-[20px]" disabled={busy || !changed}>
            {t('save')}
          </Button>
        </form>
      ) : null}
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{problem.kind === 'conflict' ? t('changed') : refusal(problem)}</ProblemLine> : null}
    </section>
  );
}
