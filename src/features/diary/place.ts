import { USUAL_MINUTES, type VisitKind } from '@/core';
import { formatTime } from '@/i18n/format';
import type { Problem } from '@/lib/outcome';
import { minuteOf, type Row } from './strip';
import { formatMinuteOfDay } from '@/core';

/** A place in the diary as it is typed. */
export interface TypedPlace {
  readonly day: string;
  readonly time: string;
  readonly chairMinutes: string;
  readonly staffMinutes: string;
  /** Empty for none. */
  readonly roomId: string;
  readonly staffId: string;
  readonly despite: string;
}

/** Minutes as typed; what is no whole number is none that any form takes. */
const minutes = (text: string): number => (/^\d{1,3}$/.test(text.trim()) ? Number(text.trim()) : -1);

/** What commands of the diary are sent. */
export const placeOf = (typed: TypedPlace) => ({
  day: typed.day,
  time: typed.time,
  chairMinutes: minutes(typed.chairMinutes),
  staffMinutes: minutes(typed.staffMinutes),
  roomId: typed.roomId === '' ? null : typed.roomId,
  staffId: typed.staffId === '' ? null : typed.staffId,
  despite: typed.despite,
});

/** A new appointment before anything is typed: the minutes that its kind usually takes. */
export const emptyPlace = (kind: VisitKind, day: string): TypedPlace => ({
  day,
  time: '',
  ...minutesOf(kind),
  roomId: '',
  staffId: '',
  despite: '',
});
export const minutesOf = (kind: VisitKind): Pick<TypedPlace, 'chairMinutes' | 'staffMinutes'> => ({
  chairMinutes: String(USUAL_MINUTES[kind].chair),
  staffMinutes: String(USUAL_MINUTES[kind].staff),
});

/** Where an appointment is. */
export const placeOfRow = (row: Row, day: string, zone: string): TypedPlace => ({
  day,
  time: formatMinuteOfDay(minuteOf(row.startsAt, zone)),
  chairMinutes: String(row.chairMinutes),
  staffMinutes: String(row.staffMinutes),
  roomId: row.roomId ?? '',
  staffId: row.staffId ?? '',
  despite: '',
});

/** Where a free time is. */
export const placeOfFree = (
  free: { readonly day: string; readonly startsAt: string; readonly roomId: string; readonly staffId: string },
  zone: string,
): Pick<TypedPlace, 'day' | 'time' | 'roomId' | 'staffId'> => ({
  day: free.day,
  time: formatTime(free.startsAt, zone),
  roomId: free.roomId,
  staffId: free.staffId,
});

const CLASHES = ['roomTaken', 'staffTaken', 'wearerTaken', 'outsideHours', 'practiceClosed', 'weekdayClosed'];
/** Is it refused only for what may be overridden with a reason? */
export const mayBeDespite = (problem: Problem | null): boolean =>
  problem?.kind === 'invalid' && problem.fields.length > 0 && problem.fields.every((f) => CLASHES.includes(f.code));
