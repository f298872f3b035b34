import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { soFar, type AskedSoFar, type SoFar, type SoFarRoom } from '@/core';
import { latestOnly } from '@/lib/latestOnly';
import { startSoFar } from '@/workers/soFar';

const read = (asked: string): AskedSoFar => JSON.parse(asked) as AskedSoFar;

/**
 * The best families for what is typed, reckoned in a thread of its own: typing never waits for it. Where no thread can be
 * had, the page reckons by itself.
 * @param asked an `AskedSoFar` as text, so that only a changed figure asks anew
 */
export function useSoFar(room: SoFarRoom, asked: string): SoFar | null {
  const [answer, setAnswer] = useState<SoFar | null>(null);
  const [alone, setAlone] = useState(false);
  const thread = useRef<{ readonly enter: NonNullable<ReturnType<typeof startSoFar>>['api']['enter']; readonly ask: (asked: string) => void } | null>(null);
  useEffect(() => {
    const broken = (): void => setAlone(true);
    const started = startSoFar(broken);
    if (started === null) return;
    const { api, end } = started;
    // An answer that fails must not leave the one before it standing beside other figures.
    const rank = async (text: string): Promise<SoFar | null> => {
      try {
        return await api.rank(read(text));
      } catch {
        broken();
        return null;
      }
    };
    thread.current = { enter: api.enter, ask: latestOnly(rank, setAnswer) };
    return () => {
      thread.current = null;
      end();
    };
  }, []);
  useEffect(() => {
    void thread.current?.enter(room);
  }, [room]);
  useEffect(() => {
    thread.current?.ask(asked);
  }, [room, asked]);
  const later = useDeferredValue(asked);
  const own = useMemo(() => (alone ? soFar(room, read(later)) : null), [alone, room, later]);
  return own ?? answer;
}
