import { useEffect, useRef, useState } from 'react';
import type { Ink } from '@/core';
import { latestOnly } from '@/lib/latestOnly';
import { startPupilLetters, type AskedLook, type LookDrawn } from '@/workers/pupilLetters';

/** Letters that were drawn, and the question that they answer. */
export interface LettersDrawn {
  readonly key: string;
  readonly looks: readonly LookDrawn[];
}

/**
 * Letters through pupils, reckoned in a thread: while something moves the newest question wins. `away` where no thread can be had: the page would stand still.
 * @param key looks as text, so that only a changed figure asks again
 * @param picture the letters; null until they are drawn
 */
export function usePupilLetters(key: string, picture: Ink | null, arcminPerPixel: number): LettersDrawn | 'away' | null {
  const [drawn, setDrawn] = useState<LettersDrawn | 'away' | null>(null);
  const ask = useRef<((key: string) => void) | null>(null);
  useEffect(() => {
    if (picture === null) return;
    const broken = (): void => setDrawn('away');
    const started = startPupilLetters(broken);
    if (started === null) return;
    const taken = started.api.take(picture, arcminPerPixel);
    const seen = async (text: string): Promise<LettersDrawn | 'away'> => {
      try {
        await taken;
        return { key: text, looks: await started.api.seen(JSON.parse(text) as AskedLook[]) };
      } catch {
        return 'away';
      }
    };
    ask.current = latestOnly(seen, setDrawn);
    return () => {
      ask.current = null;
      started.end();
    };
  }, [picture, arcminPerPixel]);
  useEffect(() => {
    ask.current?.(key);
  }, [key, picture]);
  return drawn;
}
