import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { throughFocus, type Eye, type EyeThroughLens, type ThroughFocus } from '@/core';
import { latestOnly } from '@/lib/latestOnly';
import { startThroughFocus } from '@/workers/throughFocus';

const read = (key: string) => JSON.parse(key) as Readonly<Record<Eye, EyeThroughLens>>;

/**
 * The curves of a pair, reckoned in a thread while something moves: the newest question wins. Where no thread can be had the page
 * reckons by itself.
 * @param key the eyes as text, so that only a changed figure asks anew
 */
export function useThroughFocus(key: string): ThroughFocus | null {
  const [answer, setAnswer] = useState<ThroughFocus | null>(null);
  const [alone, setAlone] = useState(false);
  const ask = useRef<((key: string) => void) | null>(null);
  useEffect(() => {
    const broken = (): void => setAlone(true);
    const started = startThroughFocus(broken);
    if (started === null) return;
    const curves = async (text: string): Promise<ThroughFocus | null> => {
      try {
        return await started.api.curves(read(text));
      } catch {
        broken();
        return null;
      }
    };
    ask.current = latestOnly(curves, setAnswer);
    return () => {
      ask.current = null;
      started.end();
    };
  }, []);
  useEffect(() => {
    ask.current?.(key);
  }, [key]);
  const later = useDeferredValue(key);
  const own = useMemo(() => (alone ? throughFocus(read(later)) : null), [alone, later]);
  return own ?? answer;
}
