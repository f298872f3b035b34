'use client';
import { DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors, type DragEndEvent, type KeyboardCoordinateGetter } from '@dnd-kit/core';
import { useRef } from 'react';
import { useTranslations } from 'use-intl';
import { formatMinuteOfDay } from '@/core';
import { AppointmentBlock } from './AppointmentBlock';
import { across, droppedAt, hoursOf, LANE_PX, STEP_MINUTES, type Dropped, type Row, type Strip, type StripBlock, type StripRoom } from './strip';

/** Arrow keys move by a step of time, or to the next room. @param minutes of the whole strip */
const keysFor =
  (minutes: number): KeyboardCoordinateGetter =>
  (event, { currentCoordinates: { x, y } }) => {
    const lanes = event.target instanceof Element ? event.target.closest('.strip-lanes') : null;
    const stepPx = ((lanes?.getBoundingClientRect().width ?? minutes) / minutes) * STEP_MINUTES;
    switch (event.code) {
      case 'ArrowRight':
        return { x: x + stepPx, y };
      case 'ArrowLeft':
        return { x: x - stepPx, y };
      case 'ArrowDown':
        return { x, y: y + LANE_PX };
      case 'ArrowUp':
        return { x, y: y - LANE_PX };
      default:
        return undefined;
    }
  };

/** A day: every room a row, real time across. An appointment is opened by a press, and moved by drag or by keys. */
export function RoomStrip({
  strip,
  now,
  mayMove,
  onOpen,
  onMove,
}: {
  readonly strip: Strip;
  /** Minutes from midnight, when the day is today. */
  readonly now: number | null;
  readonly mayMove: boolean;
  readonly onOpen: (row: Row) => void;
  readonly onMove: (row: Row, to: Dropped) => void;
}) {
  const t = useTranslations('diary');
  const field = useRef<HTMLDivElement>(null);
  const width = (): number => field.current?.getBoundingClientRect().width ?? 1;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: keysFor(strip.to - strip.from),
      keyboardCodes: { start: ['Space'], cancel: ['Escape'], end: ['Space', 'Enter'] },
    }),
  );
  const placed = (id: string | number): { room: StripRoom; block: StripBlock } | null => {
    for (const room of strip.rooms) {
      const block = room.blocks.find((b) => b.row.appointmentId === id);
      if (block) return { room, block };
    }
    return null;
  };
  const where = (id: string | number, by: { readonly x: number; readonly y: number }): string => {
    const found = placed(id);
    if (!found) return '';
    const to = droppedAt(strip, found.room, found.block, by, width());
    return t('movedTo', { time: formatMinuteOfDay(to.minute), room: strip.rooms.find((r) => r.id === to.roomId)?.name ?? '' });
  };
  const drop = ({ active, delta }: DragEndEvent): void => {
    const found = placed(active.id);
    if (!found) return;
    const to = droppedAt(strip, found.room, found.block, delta, width());
    if (to.minute !== found.block.from || to.roomId !== found.block.row.roomId) onMove(found.block.row, to);
  };
  const inView = now !== null && now >= strip.from && now <= strip.to;
  return (
    <DndContext
      // Its own name: made up anew it would differ between server and page.
      id="diary"
      sensors={sensors}
      onDragEnd={drop}
      autoScroll={false}
      accessibility={{
        screenReaderInstructions: { draggable: t('dragHelp') },
        announcements: {
          onDragStart: ({ active }) => t('picked', { name: placed(active.id)?.block.row.name ?? '' }),
          onDragOver: () => undefined,
          onDragMove: ({ active }) => where(active.id, { x: 0, y: 0 }),
          onDragEnd: ({ active }) => t('dropped', { name: placed(active.id)?.block.row.name ?? '' }),
          onDragCancel: () => t('dragCancelled'),
        },
      }}
    >
      <div className="strip-grid" data-testid="room-strip">
        <div className="strip-hours" aria-hidden="true">
          {hoursOf(strip).map((hour) => (
            <span key={hour} data-last={hour === strip.to || undefined} style={{ left: `${across(strip, hour)}%` }}>
              {formatMinuteOfDay(hour)}
            </span>
          ))}
          {inView ? (
            <span className="strip-now-flag" style={{ left: `${across(strip, now)}%` }}>
              {formatMinuteOfDay(now)}
            </span>
          ) : null}
        </div>
        {strip.rooms.map((room, i) => (
          <section key={room.id ?? 'none'} className="strip-room" aria-label={room.name ?? t('noRoom')}>
            <h3 className="strip-room-name">{room.name ?? t('noRoom')}</h3>
            <div className="strip-lanes" ref={i === 0 ? field : undefined} style={{ height: room.lanes * LANE_PX }}>
              {hoursOf(strip).map((hour) => (
                <span key={hour} className="strip-line-hour" style={{ left: `${across(strip, hour)}%` }} />
              ))}
              {inView ? (
                <>
                  <span className="strip-past" style={{ width: `${across(strip, now)}%` }} />
                  <span className="strip-now" style={{ left: `${across(strip, now)}%` }} />
                </>
              ) : null}
              {room.blocks.map((block) => (
                <AppointmentBlock key={block.row.appointmentId} strip={strip} block={block} now={now} mayMove={mayMove} onOpen={onOpen} whereTo={where} />
              ))}
            </div>
          </section>
        ))}
      </div>
    </DndContext>
  );
}
