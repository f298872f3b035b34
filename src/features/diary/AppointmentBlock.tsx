'use client';
import { useDraggable } from '@dnd-kit/core';
import { useTranslations } from 'use-intl';
import { formatMinuteOfDay } from '@/core';
import { StateMark } from '@/ui/marks';
import { across, LANE_PX, type Row, type Strip, type StripBlock } from './strip';

/** One appointment in its room's row: who, what for, and how much of it somebody of the staff is needed. */
export function AppointmentBlock({
  strip,
  block: { row, from, lane },
  now,
  mayMove,
  onOpen,
  whereTo,
}: {
  readonly strip: Strip;
  readonly block: StripBlock;
  readonly now: number | null;
  readonly mayMove: boolean;
  readonly onOpen: (row: Row) => void;
  readonly whereTo: (id: string, by: { readonly x: number; readonly y: number }) => string;
}) {
  const t = useTranslations('diary');
  const kinds = useTranslations('today.kind');
  const fixed = !mayMove || row.state !== 'booked';
  const { setNodeRef, listeners, attributes, transform, isDragging } = useDraggable({ id: row.appointmentId, disabled: fixed });
  const until = from + row.chairMinutes;
  const past = now !== null && until <= now;
  const here = row.visitOpen || row.state === 'arrived';
  const words = t('blockWords', {
    name: row.name,
    kind: kinds(row.kind),
    from: formatMinuteOfDay(from),
    until: formatMinuteOfDay(until),
    staff: row.staff ?? '',
  });
  return (
    <button
      ref={setNodeRef}
      type="button"
      {...attributes}
      {...listeners}
      aria-disabled={undefined}
      title={words}
      className="strip-block"
      data-state={row.visitOpen ? 'open' : row.state}
      data-past={past || undefined}
      data-dragging={isDragging || undefined}
      data-testid={`block-${row.recordNumber}`}
      style={{
        left: `${across(strip, from)}%`,
        width: `${across(strip, until) - across(strip, from)}%`,
        top: lane * LANE_PX + 3,
        height: LANE_PX - 6,
        ...(transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : {}),
      }}
      onClick={() => onOpen(row)}
    >
      <span className="strip-block-name">
        {here ? <StateMark state="watch" size={12} /> : row.state === 'done' ? <StateMark state="ok" size={12} /> : null}
        {row.name}
      </span>
      <span className="strip-block-kind">{isDragging && transform ? whereTo(row.appointmentId, transform) : kinds(row.kind)}</span>
      <span className="sr-only">{words}</span>
      <span className="strip-staff" style={{ width: `${(row.staffMinutes / row.chairMinutes) * 100}%` }} />
    </button>
  );
}
