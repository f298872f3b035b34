import { useDeferredValue, useMemo } from 'react';
import { seenThrough, type Ink, type ToSee } from '@/core';
import { startThroughFocus, type Drawn } from '@/workers/throughFocus';
import { useLettersThread } from './useLettersThread';

/** The same by the page itself. */
function drawnHere(asked: ToSee, picture: Ink, arcminPerPixel: number): Drawn {
  const { curves, letters } = seenThrough(asked, picture, arcminPerPixel);
  const dense = (of: readonly Float32Array[]) => of.map((ink) => Uint8ClampedArray.from(ink, (density) => density * 255));
  return { curves, letters: { right: dense(letters.right), left: dense(letters.left) } };
}

/**
 * The curves of a pair and the letters through it, reckoned in a thread; where none can be had the page reckons by itself.
 * @param key what is asked as text, so that only a changed figure asks again
 * @param picture the letters; null until they are drawn
 * @param arcminPerPixel size of a pixel, minutes of arc
 */
export function useThroughFocus(key: string, picture: Ink | null, arcminPerPixel: number): Drawn | null {
  const drawn = useLettersThread<ToSee, Drawn>(startThroughFocus, key, picture, arcminPerPixel);
  const alone = drawn === 'away';
  const later = useDeferredValue(key);
  const own = useMemo(
    () => (alone && picture ? drawnHere(JSON.parse(later) as ToSee, picture, arcminPerPixel) : null),
    [alone, later, picture, arcminPerPixel],
  );
  return alone ? own : (drawn?.answer ?? null);
}
