import 'server-only';
import { Temporal } from 'temporal-polyfill';
import type { Clock } from '../lib/clock';
import type { Db } from '../db/client';
import { findClockSetting } from '../db/clockSetting';

/** The machine's clock. */
export const systemClock: Clock = { now: () => Promise.resolve(Temporal.Now.instant().round('millisecond').toString()) };

/**
 * The clock of this process: in demo and test mode it can be set (all processes on one database agree);
 * in production it is the machine's, whatever the table says.
 */
export function clockFor(sql: Db, mode: 'production' | 'demo' | 'test'): Clock {
  if (mode === 'production') return systemClock;
  return {
    now: async () => {
      const setting = await findClockSetting(sql);
      if (setting.frozenAt !== null) return setting.frozenAt;
      return Temporal.Now.instant().round('millisecond').add({ seconds: setting.offsetSeconds }).toString();
    },
  };
}
