import { useEffect } from 'react';
import type { Order } from '@/core';
import { useServer } from '../../../common/ServerProvider';

/** A supplier's answer is told as it comes; where nothing can be heard the page asks, less and less often, and then no more, ms. */
const FIRST_MS = 10_000;
const LONGEST_MS = 300_000;
const MOST_LOOKS = 12;

/** Looks whether something happened to orders that wait for their supplier; only then is the visit read anew. */
export function useAwaited(orders: readonly Order[], refresh: () => Promise<void>): void {
  const { poll } = useServer();
  const ids = orders.map((o) => o.id).join(' ');
  const known = orders.reduce((sum, o) => sum + o.events.length, 0);
  useEffect(() => {
    if (ids === '') return undefined;
    let gone = false;
    let timer: ReturnType<typeof setTimeout>;
    const look = async (after: number, left: number): Promise<void> => {
      const read = await poll('readOrderEvents', { orderIds: ids.split(' ') });
      if (gone) return;
      if (read?.ok && read.value.events !== known) return refresh();
      if (left > 1) timer = setTimeout(() => void look(Math.min(LONGEST_MS, after * 2), left - 1), Math.min(LONGEST_MS, after * 2));
    };
    timer = setTimeout(() => void look(FIRST_MS, MOST_LOOKS), FIRST_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [ids, known, poll, refresh]);
}
