import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { seenThrough, type Ink, type ToSee } from '@/core';
import { latestOnly } from '@/lib/latestOnly';
import { startThroughFocus, type Drawn } from '@/workers/throughFocus';

const read = (key: string) => JSON.parse(key) as ToSee;

/** The same by the page itself. */
function drawnHere(asked: ToSee, picture: Ink, arcminPerPixel: number): Drawn {
  const { curves, letters } = seenThrough(asked, picture, arcminPerPixel);
  const dense = (of: readonly Float32Array[]) => of.map((ink) => Uint8ClampedArray.from(ink, (density) => density * 255));
  return { curves, letters: { right: dense(letters.right), left: dense(letters.left) } };
}

/**
 * The curves of a pair and the letters through it, reckoned in a thread while something moves: the newest question wins. Where no thread can be had the page
 * reckons by itself.
 * @param key what is asked as text, so that only a changed figure asks again
 * @param picture the letters; null until they are drawn
 * @param arcminPerPixel size of a pixel, minutes of arc
 */
export function useThroughFocus(key: string, picture: Ink | null, arcminPerPixel: number): Drawn | null {
  const [answer, setAnswer] = useState<Drawn | null>(null);
  const [alone, setAlone] = useState(false);
  const ask = useRef<((key: string) => void) | null>(null);
  useEffect(() => {
    if (picture === null) return;
    const broken = (): void => setAlone(true);
    const started = startThroughFocus(broken);
    if (started === null) return;
    const taken = started.api.take(picture, arcminPerPixel);
    const seen = async (text: string): Promise<Drawn | null> => {
      try {
        await taken;
        return await started.api.seen(read(text));
      } catch {
        broken();
        return null;
      }
    };
    ask.current = latestOnly(seen, setAnswer);
    return () => {
      ask.current = null;
      started.end();
    };
  }, [picture, arcminPerPixel]);
  useEffect(() => {
    ask.current?.(key);
  }, [key, picture]);
  const later = useDeferredValue(key);
  const own = useMemo(() => (alone && picture ? drawnHere(read(later), picture, arcminPerPixel) : null), [alone, later, picture, arcminPerPixel]);
  return own ?? answer;
}
