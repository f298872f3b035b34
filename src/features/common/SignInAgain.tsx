'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import type { Problem } from '@/lib/outcome';
import type { Viewer } from '@/services/sessionContext';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { callSignIn, Unreached } from './server';
import { useRefusalWords } from './words';

/** The same person's password over the page; what was typed below stays. */
export function SignInAgain({ viewer, onDone }: { readonly viewer: Viewer; readonly onDone: () => void }) {
  const t = useTranslations('panels');
  const refusal = useRefusalWords();
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<Problem | Unreached['why'] | null>(null);
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    try {
      const result = await callSignIn(viewer.account, password);
      if (result.ok) onDone();
      else setProblem(result.error);
    } catch (cause) {
      if (!(cause instanceof Unreached)) throw cause;
      setProblem(cause.why);
    }
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-2">
      <div className="value">{viewer.name}</div>
      <Field
        label={t('password')}
        type="password"
        autoComplete="current-password"
        autoFocus
        value={password}
        onValue={setPassword}
        problem={problem === null ? null : problem === 'away' || problem === 'diskFull' ? t(`${problem}Short`) : refusal(problem)}
      />
      <div className="flex items-center justify-between gap-3">
        <a className="btn btn-quiet" href="/sign-in">
          {t('somebodyElse')}
        </a>
        <Button look="act" type="submit" keys={['⏎']}>
          {t('unlock')}
        </Button>
      </div>
    </form>
  );
}
