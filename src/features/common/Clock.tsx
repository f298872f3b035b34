'use client';
import { useEffect, useState } from 'react';
import { formatTime, formatWeekday } from '@/i18n/format';
import { useDeeds } from './DeedsProvider';

/** Ticks of the server's clock, ms; starts at the moment the page was made, so that server and browser agree. */
export function useNow(everyMs = 1000): number {
  const { house, now } = useDeeds();
  const [moment, setMoment] = useState(() => Date.parse(house.now));
  useEffect(() => {
    const timer = setInterval(() => setMoment(now()), everyMs);
    return () => clearInterval(timer);
  }, [now, everyMs]);
  return moment;
}

/** Time and day at the practice. */
export function WallClock() {
  const { house } = useDeeds();
  const moment = useNow(5000);
  return (
    <div className="flex flex-col items-end justify-center px-5 whitespace-nowrap drop-narrow">
      <div className="value">{formatTime(moment, house.practice.timeZone)}</div>
      <div className="note">{formatWeekday(new Date(moment).toISOString(), house.practice.timeZone)}</div>
    </div>
  );
}
