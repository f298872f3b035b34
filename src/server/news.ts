import 'server-only';
import { readNews, type News } from '../core';
import type { Sql } from '../db/client';
import { log } from './log';

/** Told of news of one practice; `null`: something may have been missed, look for yourself. */
export type Hearer = (news: News | null) => void;

/** One ear a process at the database, handing on what it hears to the pages of each practice. */
export interface NewsDesk {
  /** @returns how to hear no more */
  readonly hear: (practiceId: string, hearer: Hearer) => () => void;
  readonly hearers: () => number;
}

/** Which practice a piece of news is of. */
const practiceOf = (text: string): string => {
  const { practice } = JSON.parse(text) as { readonly practice?: unknown };
  return typeof practice === 'string' ? practice : '';
};

/** Opens the ear. While the database is away it waits and comes back by itself; then everybody is told to look. */
export function openNewsDesk(sql: Sql): NewsDesk {
  const byPractice = new Map<string, Set<Hearer>>();
  let opened = false;
  const onNews = (text: string): void => {
    const news = readNews(text);
    if (!news) return;
    for (const hearer of byPractice.get(practiceOf(text)) ?? []) hearer(news);
  };
  const onOpen = (): void => {
    if (opened) for (const hearers of byPractice.values()) for (const hearer of hearers) hearer(null);
    opened = true;
  };
  sql.listen('keenfit_news', onNews, onOpen).catch((cause: unknown) => log.warn({ cause }, 'no ear for news: pages look for themselves'));
  return {
    hear: (practiceId, hearer) => {
      const hearers = byPractice.get(practiceId) ?? new Set();
      byPractice.set(practiceId, hearers.add(hearer));
      return () => {
        hearers.delete(hearer);
        if (hearers.size === 0) byPractice.delete(practiceId);
      };
    },
    hearers: () => [...byPractice.values()].reduce((sum, hearers) => sum + hearers.size, 0),
  };
}
