'use client';
import { useCallback, useSyncExternalStore } from 'react';
import { formatTime, formatWeekday } from '@/i18n/format';
import { useServer } from './ServerProvider';

/**
 * The server's moment, ms, in steps. While a page comes to life it is the moment at which the page was made, so that server
 * and browser agree; a page opened later begins with the moment it is, not with that of an older page.
 */
export function useNow(everyMs = 1000): number {
  const { session, now } = useServer();
  const stepped = (moment: number): number => Math.floor(moment / everyMs) * everyMs;
  const tick = useCallback(
    (told: () => void) => {
      const timer = setInterval(told, Math.min(everyMs, 1000));
      return () => clearInterval(timer);
    },
    [everyMs],
  );
  return useSyncExternalStore(
    tick,
    () => stepped(now()),
    () => stepped(Date.parse(session.now)),
  );
}

/** Time and day at the practice. */
export function WallClock() {
  const { session } = useServer();
  const moment = useNow(5000);
  return (
    <div className="flex flex-col items-end justify-center px-5 whitespace-nowrap drop-narrow">
      <div className="value">{formatTime(moment, session.practice.timeZone)}</div>
      <div className="note">{formatWeekday(new Date(moment).toISOString(), session.practice.timeZone)}</div>
    </div>
  );
}
