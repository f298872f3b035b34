'use client';
import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react';
import { IntlProvider } from 'use-intl';
import type { en } from './messages/en';
import eyes from './messages/en/eyes.messages.json';
import frame from './messages/en/frame.messages.json';
import panels from './messages/en/panels.messages.json';
import problems from './messages/en/problems.messages.json';

/** Words by their namespace. Problems of a page are added to those that every page may meet. */
export type Words = Partial<Omit<typeof en, 'problems'>> & { readonly problems?: Partial<(typeof en)['problems']> };

const together = (around: Words, own: Words | undefined): Words => ({ ...around, ...own, problems: { ...around.problems, ...own?.problems } });

/** What every page says. */
const COMMON: Words = { eyes, frame, panels, problems };

const WordsContext = createContext<Words>(COMMON);

/** Gives every part below it the words that every page says, and the practice's time zone. */
export function MessagesProvider({ timeZone, words, children }: { readonly timeZone: string; readonly words?: Words; readonly children: ReactNode }) {
  const all = useMemo((): Words => together(COMMON, words), [words]);
  return (
    <WordsContext.Provider value={all}>
      <IntlProvider locale="en" messages={all} timeZone={timeZone}>
        {children}
      </IntlProvider>
    </WordsContext.Provider>
  );
}

/** Adds the words of one page to those around it: each page brings its own and no other's. */
export function PageWords({ words, children }: { readonly words: Words; readonly children: ReactNode }) {
  const around = useContext(WordsContext);
  const all = useMemo((): Words => together(around, words), [around, words]);
  return (
    <WordsContext.Provider value={all}>
      <IntlProvider locale="en" messages={all}>
        {children}
      </IntlProvider>
    </WordsContext.Provider>
  );
}

/**
 * Adds words that no first view needs, and that are there before anybody needs them: they are asked for as soon as the page lives.
 * @param load the same function at every drawing
 */
export function LateWords({ load, children }: { readonly load: () => Promise<Words>; readonly children: ReactNode }) {
  const [words, setWords] = useState<Words>({});
  useEffect(() => void load().then(setWords), [load]);
  return <PageWords words={words}>{children}</PageWords>;
}
