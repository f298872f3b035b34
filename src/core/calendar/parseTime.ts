import { err, ok, type Result } from '../../lib/outcome';

/** A time of day that could not be read. */
export interface TimeProblem {
  readonly code: 'empty' | 'notATime';
}

const SHAPE = /^(\d{1,2})(?:[:.h ]?(\d{2}))?\s*(am|pm)?$/;

/**
 * Reads a time of day as people type it: `9`, `930`, `09:30`, `9.30`, `2 pm`.
 * @returns minutes from midnight, 0 to 1439
 * @example parseTime('2:30 pm').value → 870
 */
export function parseTime(text: string): Result<number, TimeProblem> {
  const typed = text.trim().toLowerCase();
  if (typed === '') return err({ code: 'empty' });
  const [, hourText = '', minuteText = '0', half] = SHAPE.exec(typed) ?? [];
  const hour = hourText === '' ? NaN : Number(hourText);
  const minute = Number(minuteText);
  const twelve = half !== undefined;
  if (!(hour <= 23) || minute > 59 || (twelve && (hour < 1 || hour > 12))) return err({ code: 'notATime' });
  return ok((twelve ? (hour % 12) + (half === 'pm' ? 12 : 0) : hour) * 60 + minute);
}

/** `09:30` from minutes from midnight. @example formatMinuteOfDay(570) → '09:30' */
export const formatMinuteOfDay = (minutes: number): string => `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
