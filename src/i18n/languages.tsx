'use client';
import { use, type ReactNode } from 'react';
import { IntlProvider } from 'use-intl';
import type { Words } from './MessagesProvider';

/** Languages that there are words for; the application itself is written in the first. */
export const LANGUAGES = ['en'] as const;
export type Language = (typeof LANGUAGES)[number];

/** Words of papers and messages by language, brought when they are read; null: those that stand around them already. */
type Bring = (() => Promise<Words>) | null;
const PAPERS: Readonly<Record<Language, Bring>> = { en: null };

const brought = new Map<Bring, Promise<Words>>();
/** Asked once: what is drawn again waits for the same words. */
function once(bring: NonNullable<Bring>): Promise<Words> {
  const words = brought.get(bring) ?? bring();
  brought.set(bring, words);
  return words;
}

/**
 * Gives a paper or a message the words of its reader's language, whatever language the page around it is in.
 * @param bring the words of a language, where it is none of ours
 */
export function PaperWords({ language, bring, children }: { readonly language: string; readonly bring?: Bring; readonly children: ReactNode }) {
  const load = bring ?? PAPERS[language as Language] ?? null;
  return load === null ? (
    children
  ) : (
    <Brought language={language} bring={load}>
      {children}
    </Brought>
  );
}

function Brought({ language, bring, children }: { readonly language: string; readonly bring: NonNullable<Bring>; readonly children: ReactNode }) {
  const words = use(once(bring));
  return (
    <IntlProvider locale={language as Language} messages={words}>
      {children}
    </IntlProvider>
  );
}
