'use client';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { parseDay, type FreeSlot, type VisitKind } from '@/core';
import { formatTime, formatWeekday } from '@/i18n/format';
import type { DiaryDay } from '@/services/appointment/queries';
import { Button } from '@/ui/Button';
import { useServer } from '../common/ServerProvider';
import { placeOf, type TypedPlace } from './place';

/** Asked this long after the last key, ms. */
const ASK_AFTER_MS = 200;

/** The next free times from the day typed, for the room and the person chosen, or any: one press takes one. */
export function FreeTimes({
  kind,
  typed,
  day,
  wearerId,
  busy,
  onTake,
}: {
  readonly kind: VisitKind;
  readonly typed: TypedPlace;
  readonly day: Pick<DiaryDay, 'rooms' | 'staff'>;
  readonly wearerId: string | null;
  readonly busy: boolean;
  readonly onTake: (free: FreeSlot) => void;
}) {
  const t = useTranslations('diary');
  const { look, session } = useServer();
  const [found, setFound] = useState<readonly FreeSlot[] | null>(null);
  const read = parseDay(typed.day);
  const { chairMinutes, staffMinutes, roomId, staffId } = placeOf(typed);
  const from = read.ok ? read.value : null;
  useEffect(() => {
    if (from === null || chairMinutes < 5) return undefined;
    let gone = false;
    const timer = setTimeout(() => {
      void look('findFree', { kind, from, chairMinutes, staffMinutes, roomId, staffId, wearerId }).then((done) => {
        if (!gone && done?.ok) setFound(done.value);
      });
    }, ASK_AFTER_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [look, kind, from, chairMinutes, staffMinutes, roomId, staffId, wearerId]);
  const nameOf = (list: DiaryDay['rooms'], id: string): string => list.find((one) => one.id === id)?.name ?? '';
  const zone = session.practice.timeZone;
  return (
    <section aria-label={t('nextFree')} className="min-h-[92px]">
      <h3 className="label pb-1">{t('nextFree')}</h3>
      {found?.length === 0 ? <p>{t('noneFree')}</p> : null}
      <div className="grid grid-cols-2 gap-2">
        {(found ?? []).map((free) => (
          <Button key={free.startsAt} disabled={busy} onClick={() => onTake(free)}>
            {t('freeTime', { day: formatWeekday(free.startsAt, zone), time: formatTime(free.startsAt, zone) })}
            <span className="note block">{t('freeWhere', { room: nameOf(day.rooms, free.roomId), name: nameOf(day.staff, free.staffId) })}</span>
          </Button>
        ))}
      </div>
    </section>
  );
}
