import { useCallback, useEffect, useLayoutEffect, useRef } from 'react';

/**
 * Presses that come faster than they are recorded go one after another, each with what the ones before it brought.
 * @param busy whether a command is on its way
 * @param refused where one is refused the rest are let go, since each builds on the one before it; or they go on, where each stands alone
 * @param act what records a press, as the page stands now
 */
export function usePresses<P extends { readonly id: string }>(busy: boolean, act: (press: P) => Promise<boolean>, refused: 'letGo' | 'goOn' = 'letGo') {
  const waiting = useRef<P[]>([]);
  const sending = useRef<string | null>(null);
  const latest = useRef(act);
  const afterRefusal = useRef(refused);
  const next = useCallback(async (): Promise<void> => {
    if (sending.current !== null) return;
    const press = waiting.current.shift();
    if (!press) return;
    sending.current = press.id;
    const recorded = await latest.current(press);
    sending.current = null;
    if (!recorded && afterRefusal.current === 'letGo') waiting.current = [];
  }, []);
  // With the drawing itself: a press between it and its effects would be laid on what stood before.
  useLayoutEffect(() => {
    latest.current = act;
  });
  // Once the page has been drawn with what came, the next one goes.
  useEffect(() => {
    if (!busy) void next();
  });
  const press = (what: P): void => {
    if (isUnderWay(what.id)) return;
    waiting.current.push(what);
    if (!busy) void next();
  };
  const isUnderWay = (id: string): boolean => sending.current === id || waiting.current.some((p) => p.id === id);
  return { press, isUnderWay };
}
