import { useEffect, useRef, useState } from 'react';
import type { Ink } from '@/core';
import { latestOnly } from '@/lib/latestOnly';

/** A thread that draws letters: it takes them once, and is asked on. */
interface LettersThread<Question, Answer> {
  readonly api: {
    readonly take: (picture: Ink, arcminPerPixel: number) => PromiseLike<void>;
    readonly seen: (asked: Question) => PromiseLike<Answer>;
  };
  readonly end: () => void;
}
/** The newest answer, with the question that it answers. */
export interface LettersAnswer<Answer> {
  readonly key: string;
  readonly answer: Answer;
}

/**
 * Letters drawn in a thread while something moves: the newest question wins. `away` where no thread can be had, null until there is an answer.
 * @param start the same function at every call
 * @param key what is asked as text, so that only a changed figure asks again
 * @param picture the letters; null until they are drawn
 * @param arcminPerPixel size of a pixel, minutes of arc
 */
export function useLettersThread<Question, Answer>(
  start: (broken: () => void) => LettersThread<Question, Answer> | null,
  key: string,
  picture: Ink | null,
  arcminPerPixel: number,
): LettersAnswer<Answer> | 'away' | null {
  const [drawn, setDrawn] = useState<LettersAnswer<Answer> | 'away' | null>(null);
  const ask = useRef<((key: string) => void) | null>(null);
  useEffect(() => {
    if (picture === null) return;
    const started = start(() => setDrawn('away'));
    if (started === null) return;
    const taken = started.api.take(picture, arcminPerPixel);
    const seen = async (text: string): Promise<LettersAnswer<Answer> | 'away'> => {
      try {
        await taken;
        return { key: text, answer: await started.api.seen(JSON.parse(text) as Question) };
      } catch {
        return 'away';
      }
    };
    ask.current = latestOnly(seen, setDrawn);
    return () => {
      ask.current = null;
      started.end();
    };
  }, [start, picture, arcminPerPixel]);
  useEffect(() => {
    ask.current?.(key);
  }, [key, picture]);
  return drawn;
}
