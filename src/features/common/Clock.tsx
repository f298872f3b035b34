'use client';
import { useEffect, useState } from 'react';
import { formatTime, formatWeekday } from '@/i18n/format';
import { useServer } from './ServerProvider';

/** Ticks of the server's clock, ms; starts at the moment the page was made, so that server and browser agree. */
export function useNow(everyMs = 1000): number {
  const { session, now } = useServer();
  const [moment, setMoment] = useState(() => Date.parse(session.now));
  useEffect(() => {
    const timer = setInterval(() => setMoment(now()), everyMs);
    return () => clearInterval(timer);
  }, [now, everyMs]);
  return moment;
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
