'use client';
import { useEffect, useRef, useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import type { Problem } from '@/lib/outcome';
import showWords from '@/i18n/messages/en/show.messages.json';
import { withWords } from '@/i18n/withWords';
import { Field } from '@/ui/Field';

/** The code that the teacher reads out, typed; or brought by a second window. */
function Enter({ code }: { readonly code: string }) {
  const t = useTranslations('show');
  const [typed, setTyped] = useState(code);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const brought = useRef(code);
  const enter = async (what: string): Promise<void> => {
    setBusy(true);
    try {
      const answer = await fetch('/api/screen', { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ code: what }) });
      const said = (await answer.json()) as { readonly ok: boolean; readonly error?: Problem };
      if (said.ok) window.location.replace('/show');
      else setProblem(wordOf(said.error));
    } catch {
      setProblem(t('away'));
    }
    setBusy(false);
  };
  const wordOf = (error: Problem | undefined): string => {
    if (error?.kind === 'throttled') return t('throttled', { minutes: Math.ceil(error.retryAfterSeconds / 60) });
    return error?.kind === 'invalid' && error.fields[0]?.code === 'codeShape' ? t('codeShape') : t('codeUnknown');
  };
  const open = useRef(enter);
  useEffect(() => {
    if (brought.current !== '') void open.current(brought.current);
    brought.current = '';
  }, []);
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    void enter(typed);
  };
  return (
    <main className="show-screen">
      <form className="show-plain" onSubmit={submit}>
        <h1>{t('title')}</h1>
        <p>{t('ask')}</p>
        <Field
          className="show-code"
          label={t('code')}
          value={typed}
          onValue={setTyped}
          problem={problem}
          mono
          autoComplete="off"
          autoCapitalize="characters"
          spellCheck={false}
          maxLength={12}
        />
        <button type="submit" className="btn btn-act show-button" disabled={busy || typed.trim() === ''}>
          {t('open')}
        </button>
      </form>
    </main>
  );
}

export const EnterCode = withWords({ show: showWords }, Enter);
