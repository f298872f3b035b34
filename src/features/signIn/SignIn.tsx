'use client';
import { useEffect, useRef, useState, type FormEvent } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { KeyCap } from '@/ui/marks';
import { callSignIn, openFresh, Unreached } from '../common/server';
import { openLock } from '../common/idleLock';
import { useRefusalWords } from '../common/words';
import signInWords from '@/i18n/messages/en/signIn.messages.json';
import { withWords } from '@/i18n/withWords';

export interface DemoPerson {
  readonly account: string;
  readonly name: string;
  readonly title: string;
}

/** Sign-in: an account name, or in the demo a person from the list. No wearer is named before it. */
function SignInPage({
  practice,
  town,
  people,
  demoPassword,
  to,
}: {
  readonly practice: string;
  readonly town: string;
  readonly people: readonly DemoPerson[];
  readonly demoPassword: string | null;
  readonly to: string;
}) {
  const t = useTranslations('signIn');
  const tOf = useWordsOf('signIn');
  const refusal = useRefusalWords();
  const [chosen, setChosen] = useState<string | null>(people[0]?.account ?? null);
  const [account, setAccount] = useState('');
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<Problem | Unreached['why'] | null>(null);
  const [busy, setBusy] = useState(false);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    box.current?.querySelector('input')?.focus();
  }, [chosen]);
  useHotkeys(
    '1,2,3,4,5',
    (_event, hotkey) => {
      const person = people[Number(hotkey.keys?.[0] ?? 0) - 1];
      if (person) setChosen(person.account);
    },
    [people],
  );
  useHotkeys('a', () => setChosen(null));

  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setBusy(true);
    try {
      const result = await callSignIn(chosen ?? account, password);
      if (result.ok) {
        openLock();
        openFresh(to);
        return;
      }
      setProblem(result.error);
    } catch (cause) {
      if (!(cause instanceof Unreached)) throw cause;
      setProblem(cause.why);
    }
    setBusy(false);
  };
  const words = problem === null ? null : problem === 'away' || problem === 'diskFull' ? t(problem) : refusal(problem);
  const form = (
    <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-2 max-w-[420px]">
      <div ref={box}>
        {chosen === null ? <Field label={t('account')} value={account} onValue={setAccount} autoComplete="username" spellCheck={false} /> : null}
        <div className="flex gap-2 items-end">
          <Field label={t('password')} type="password" value={password} onValue={setPassword} autoComplete="current-password" className="flex-1 tall" />
          <Button look="act" type="submit" keys={['⏎']} disabled={busy} className="mb-5">
            {t('do')}
          </Button>
        </div>
      </div>
      <div className="min-h-5" role="alert">
        {words ? <span className="text-stop font-[560]">{words}</span> : null}
      </div>
      {demoPassword ? (
        <p className="note">
          {t('demoPassword')} <b className="font-mono">{demoPassword}</b>
        </p>
      ) : null}
    </form>
  );
  return (
    <div className="min-h-dvh grid wide:grid-cols-[500px_minmax(0,1fr)]">
      <div className="bg-desk border-r border-rule-2 overflow-hidden relative hidden wide:block" aria-hidden="true">
        <Dial words={{ name: t('product'), line: t('line') }} />
      </div>
      <main className="px-6 narrow:px-12 py-10">
        <header className="mb-8">
          <h1 className="power">{practice}</h1>
          <p className="label">{town}</p>
        </header>
        {people.length === 0 ? form : null}
        <ul className="border-t-2 border-ink">
          {people.map((person, index) => (
            <li
              key={person.account}
              className={`grid grid-cols-[minmax(0,1fr)_72px_minmax(0,1.7fr)] items-stretch border-b ${chosen === person.account ? 'border-ink border-b-2 bg-lift' : 'border-rule'}`}
            >
              <button type="button" className="text-right p-4" onClick={() => setChosen(person.account)} aria-pressed={chosen === person.account}>
                <span className={chosen === person.account ? 'power whitespace-normal' : 'value'}>{person.name}</span>
                <span className="block label">{person.title}</span>
              </button>
              <span className={`flex items-center justify-center ${chosen === person.account ? 'bg-ink text-sheet' : 'bg-spine'}`}>
                <KeyCap>{String(index + 1)}</KeyCap>
              </span>
              <span className="p-4 flex items-center">
                {chosen === person.account ? form : <span className="label">{tOf(`opens.${person.account}`)}</span>}
              </span>
            </li>
          ))}
        </ul>
        {people.length > 0 ? (
          <>
            <div className="mt-6">
              {chosen === null ? (
                form
              ) : (
                <button type="button" className="btn btn-quiet" onClick={() => setChosen(null)}>
                  <KeyCap>{'A'}</KeyCap> {t('byAccount')}
                </button>
              )}
            </div>
            <p className="note border-t border-rule mt-8 pt-4">{t('demoNote')}</p>
          </>
        ) : null}
        <p className="note mt-3">{t('caution')}</p>
      </main>
    </div>
  );
}

/** A lens with its mark ten degrees to the left: what the product is about. */
function Dial({ words }: { readonly words: { readonly name: string; readonly line: string } }) {
  const at = (radius: number, degrees: number): { x: number; y: number } => ({
    x: 140 - radius * Math.sin((degrees * Math.PI) / 180),
    y: 350 + radius * Math.cos((degrees * Math.PI) / 180),
  });
  return (
    <svg viewBox="0 0 500 800" className="w-full h-full" preserveAspectRatio="xMinYMid slice">
      <circle cx="140" cy="350" r="290" fill="none" stroke="var(--ink)" strokeWidth="19" />
      <circle cx="140" cy="350" r="240" fill="none" stroke="var(--rule-2)" />
      {Array.from({ length: 37 }, (_, i) => (i - 18) * 10).map((d) => {
        const [a, b] = [at(308, d), at(d % 30 === 0 ? 330 : 320, d)];
        return <line key={d} x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="var(--ink)" strokeWidth={d === 0 ? 3 : 1.2} />;
      })}
      {[-40, -30, -20, -10, 0, 10, 20].map((d) => {
        const p = at(346, d);
        return (
          <text key={d} x={p.x} y={p.y + 5} fontSize="15" textAnchor="middle" fill="var(--ink-2)">
            {Math.abs(d)}
          </text>
        );
      })}
      <line x1={at(255, 10).x} y1={at(255, 10).y} x2={at(318, 10).x} y2={at(318, 10).y} stroke="var(--desk)" strokeWidth="44" />
      <line x1={at(258, 10).x} y1={at(258, 10).y} x2={at(316, 10).x} y2={at(316, 10).y} stroke="var(--ink)" strokeWidth="24" />
      <text x="76" y="315" fontSize="60" fontWeight="720" fill="var(--ink)">
        {words.name}
      </text>
      <text x="78" y="362" fontSize="20" fill="var(--ink)">
        {words.line}
      </text>
    </svg>
  );
}

export const SignIn = withWords({ signIn: signInWords }, SignInPage);
