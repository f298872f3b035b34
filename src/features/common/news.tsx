'use client';
import { createContext, useContext, useEffect, useMemo, useRef, type ReactNode } from 'react';
import type { News } from '@/core';
import { hearNews } from '@/workers/news';

type Hearer = (what: News | 'look') => void;
const NewsContext = createContext<{ readonly hear: (hearer: Hearer) => () => void } | null>(null);

/** One ear a page, for all of its parts. Where nothing can be heard, pages look for themselves as before. */
export function NewsProvider({ children }: { readonly children: ReactNode }) {
  const hearers = useRef(new Set<Hearer>());
  useEffect(
    () =>
      hearNews((what) => {
        for (const hearer of hearers.current) hearer(what);
      }),
    [],
  );
  const value = useMemo(
    () => ({
      hear: (hearer: Hearer) => {
        hearers.current.add(hearer);
        return () => void hearers.current.delete(hearer);
      },
    }),
    [],
  );
  return <NewsContext.Provider value={value}>{children}</NewsContext.Provider>;
}

/** Hears what changes in the practice; `look`: something may have been missed. */
export function useNews(hearer: Hearer): void {
  const news = useContext(NewsContext);
  const newest = useRef(hearer);
  useEffect(() => {
    newest.current = hearer;
  }, [hearer]);
  useEffect(() => news?.hear((what) => newest.current(what)), [news]);
}
