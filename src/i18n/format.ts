import { memoize } from '@/lib/memoize';

/** The one place that writes days, times and money. */

const weekdays = memoize((timeZone) => new Intl.DateTimeFormat('en-GB', { timeZone, weekday: 'short', day: 'numeric', month: 'short' }));
const days = memoize((timeZone) => new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' }));
const times = memoize((timeZone) => new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }));
const money = memoize((currency) => new Intl.NumberFormat('en-US', { style: 'currency', currency }));

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** `14 Mar 1992` from YYYY-MM-DD; no time zone can move it. */
export function formatDay(day: string): string {
  const [year = '', month = '', date = ''] = day.split('-');
  return `${Number(date)} ${MONTHS[Number(month) - 1] ?? month} ${year}`;
}

/** `24 Nov`, for days of this year. */
export const formatShortDay = (day: string): string => formatDay(day).split(' ').slice(0, 2).join(' ');

/** `Tue 24 Nov` of an instant, in the practice's zone. */
export const formatWeekday = (instant: string, timeZone: string): string => {
  const parts = weekdays(timeZone).formatToParts(new Date(instant));
  const part = (type: string): string => parts.find((p) => p.type === type)?.value ?? '';
  return `${part('weekday')} ${part('day')} ${part('month').slice(0, 3)}`;
};

/** `10:43`, in the practice's zone. */
export const formatTime = (instant: string | number, timeZone: string): string => times(timeZone).format(new Date(instant));

/** `24 Nov 2026, 10:43`, in the practice's zone. */
export const formatMoment = (instant: string, timeZone: string): string =>
  `${formatDay(days(timeZone).format(new Date(instant)))}, ${formatTime(instant, timeZone)}`;

/** `$58.50` from minor units. */
export const formatMoney = (minor: number, currency: string): string => money(currency).format(minor / 100);

/** `0417`: a record number. */
export const formatRecord = (recordNumber: number): string => String(recordNumber).padStart(4, '0');

/** `4:07` from seconds, `6:00:01` from an hour on. */
export function formatElapsed(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds));
  const two = (n: number): string => String(n).padStart(2, '0');
  const minutes = Math.floor(whole / 60);
  const hours = Math.floor(minutes / 60);
  return hours === 0 ? `${minutes}:${two(whole % 60)}` : `${hours}:${two(minutes % 60)}:${two(whole % 60)}`;
}
