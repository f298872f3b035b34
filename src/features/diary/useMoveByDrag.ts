import { useState } from 'react';
import { formatMinuteOfDay } from '@/core';
import type { Problem } from '@/lib/outcome';
import type { DiaryDay } from '@/services/appointment/queries';
import { useServer } from '../common/ServerProvider';
import { placeOf, placeOfRow } from './place';
import type { Dropped, Row } from './strip';

/** A move by hand that is done, and can be taken back at once. */
export interface Moved {
  readonly row: Row;
  readonly version: number;
}

/**
 * Moves an appointment to where it was dragged. Meanwhile it is shown there; refused, it is back at its place.
 * @param onRefused told where it should have gone and why it cannot
 * @param onHeldBack told of a move that cannot be undone by itself: its old place is taken
 */
export function useMoveByDrag(day: DiaryDay, onDone: () => void, onRefused: (row: Row, to: Dropped, problem: Problem) => void, onHeldBack: (row: Row) => void) {
  const { command, session } = useServer();
  const [moved, setMoved] = useState<Moved | null>(null);
  const move = async (row: Row, to: Dropped): Promise<void> => {
    const place = { ...placeOfRow(row, day.day, session.practice.timeZone), time: formatMinuteOfDay(to.minute), roomId: to.roomId ?? '' };
    const done = await command('moveAppointment', { appointmentId: row.appointmentId, version: row.version, ...placeOf(place) });
    if (!done) return;
    if (!done.ok && done.error.kind === 'invalid') return onRefused(row, to, done.error);
    setMoved(done.ok ? { row, version: done.value.version } : null);
    onDone();
  };
  const takeBack = async (): Promise<void> => {
    if (!moved) return;
    setMoved(null);
    const done = await command('undoAppointment', { appointmentId: moved.row.appointmentId, version: moved.version, despite: '' });
    onDone();
    if (done && !done.ok) onHeldBack({ ...moved.row, version: moved.version });
  };
  return { move, moved, takeBack };
}
