import { addDays, daysBetween, type EyeRunway, type IsoDate } from '@/core';

/** Days before today, and after, that the axis shows. */
const BACK = 14;
const AHEAD = 98;

/** A place on the axis, percent of its width; what lies outside is at its edge. */
export function placeOf(day: IsoDate, today: IsoDate): number {
  const at = (daysBetween(addDays(today, -BACK), day) / (BACK + AHEAD)) * 100;
  return Math.round(Math.min(100, Math.max(0, at)) * 100) / 100;
}

/** First days of months on the axis. */
export function monthsOf(today: IsoDate): readonly IsoDate[] {
  const [from, to] = [addDays(today, -BACK), addDays(today, AHEAD)];
  const months: IsoDate[] = [];
  for (let at = `${addDays(`${from.slice(0, 7)}-01`, 32).slice(0, 7)}-01`; at < to; at = `${addDays(at, 32).slice(0, 7)}-01`) months.push(at);
  return months;
}

export interface DueBar {
  readonly look: 'inHand' | 'onTheWay';
  readonly from: number;
  readonly width: number;
}

/** One eye's bars: what is in hand from the axis's beginning, then what is on its way. */
export function barsOf(row: EyeRunway, today: IsoDate): readonly DueBar[] {
  const held = row.inHandUntil === null ? 0 : placeOf(addDays(row.inHandUntil, 1), today);
  const all = placeOf(addDays(row.runOut, 1), today);
  const bars: readonly DueBar[] = [
    { look: 'inHand', from: 0, width: held },
    { look: 'onTheWay', from: held, width: row.onTheWay > 0 ? all - held : 0 },
  ];
  return bars.filter((b) => b.width > 0);
}
