import { useEffect, useRef, useState } from 'react';
import { throughFocus, type Eye, type EyeThroughLens, type ThroughFocus } from '@/core';
import { startThroughFocus, type ThroughFocusThread } from '@/workers/throughFocus';

type Eyes = Readonly<Record<Eye, EyeThroughLens>>;

/**
 * The curves of a pair, reckoned in a thread while something moves: one question on its way, the newest waits, older ones are
 * let go. Where no thread can be had the page reckons by itself.
 * @param key the eyes as JSON: the same text asks nothing
 */
export function useThroughFocus(key: string): ThroughFocus | null {
  const [found, setFound] = useState<ThroughFocus | null>(null);
  const thread = useRef<ThroughFocusThread | null>(null);
  const byPage = useRef(false);
  const waiting = useRef<string | null>(null);
  const asking = useRef(false);
  useEffect(() => {
    thread.current = startThroughFocus(() => {
      byPage.current = true;
    });
    return () => {
      thread.current?.end();
      thread.current = null;
    };
  }, []);
  useEffect(() => {
    let gone = false;
    waiting.current = key;
    const ask = async (): Promise<void> => {
      if (asking.current) return;
      asking.current = true;
      while (waiting.current !== null) {
        const eyes = JSON.parse(waiting.current) as Eyes;
        waiting.current = null;
        const curves = byPage.current || !thread.current ? throughFocus(eyes) : await thread.current.api.curves(eyes);
        if (!gone) setFound(curves);
      }
      asking.current = false;
    };
    void ask();
    return () => {
      gone = true;
    };
  }, [key]);
  return found;
}
