'use client';
import { lazy, Suspense } from 'react';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { may } from '@/core';
import type { DiaryDay } from '@/services/appointment/queries';
import { Button } from '@/ui/Button';
import { useServer } from '../common/ServerProvider';
import type { DayPanel } from './DayPanels';
import { minuteOf, stripHeight, stripOf } from './strip';
import { useMoveByDrag } from './useMoveByDrag';

// What is dragged brings its own script: the day's list is there before it.
const RoomStrip = lazy(() => import('./RoomStrip').then((m) => ({ default: m.RoomStrip })));

/** The rooms of a day; or, where there are none yet, the way to them. */
export function DayStrip({
  day,
  now,
  onPanel,
  onDone,
}: {
  readonly day: DiaryDay;
  /** Milliseconds since the epoch. */
  readonly now: number;
  readonly onPanel: (panel: DayPanel) => void;
  readonly onDone: () => void;
}) {
  const t = useTranslations('diary');
  const { session } = useServer();
  const zone = session.practice.timeZone;
  const { move, moved, takeBack } = useMoveByDrag(
    day,
    onDone,
    (row, to, refused) => onPanel({ kind: 'move', row, to, refused }),
    (row) => onPanel({ kind: 'look', row }),
  );
  if (day.rooms.length === 0) {
    return (
      <p className="px-6 py-4">
        {t('noRooms')}{' '}
        {may(session.viewer.roles, 'settings') ? (
          <Link className="underline" href="/settings/rooms" prefetch={false}>
            {t('toRooms')}
          </Link>
        ) : (
          t('noRoomsAsk')
        )}
      </p>
    );
  }
  const strip = stripOf(day, zone);
  return (
    <div>
      <Suspense fallback={<div style={{ height: stripHeight(strip) }} />}>
        <RoomStrip
          strip={strip}
          now={day.day === session.today ? minuteOf(now, zone) : null}
          mayMove={may(session.viewer.roles, 'wearers') && day.day >= session.today}
          onOpen={(row) => onPanel({ kind: 'look', row })}
          onMove={(row, to) => void move(row, to)}
        />
      </Suspense>
      <p className="px-6 min-h-8 flex gap-4 items-center label" aria-live="polite">
        {moved ? (
          <>
            {t('movedDone', { name: moved.row.name })}
            <Button look="quiet" onClick={() => void takeBack()}>
              {t('undo')}
            </Button>
          </>
        ) : day.closedName !== null ? (
          t('closedNamed', { name: day.closedName })
        ) : day.opening === null ? (
          t('closedDay')
        ) : (
          t('dragHint')
        )}
      </p>
    </div>
  );
}
