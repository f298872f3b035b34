'use client';
import type { VisitKind } from '@/core';
import type { Problem } from '@/lib/outcome';
import type { DiaryDay } from '@/services/appointment/queries';
import { AppointmentPanel } from './AppointmentPanel';
import { TriagePanel } from '../common/triage/TriagePanel';
import { BookPanel } from './BookPanel';
import type { Found } from '../common/FindWearer';
import { MovePanel } from './MovePanel';
import type { Dropped, Row } from './strip';

/** What lies over a day of the diary. */
export type DayPanel =
  | { readonly kind: 'look'; readonly row: Row }
  | { readonly kind: 'move'; readonly row: Row; readonly to?: Dropped; readonly refused?: Problem }
  | { readonly kind: 'book'; readonly wearer: Found | null; readonly visit?: VisitKind }
  | { readonly kind: 'redEye' };

export function DayPanels({
  panel,
  day,
  onPanel,
  onDone,
}: {
  readonly panel: DayPanel;
  readonly day: DiaryDay;
  readonly onPanel: (panel: DayPanel | null) => void;
  readonly onDone: () => void;
}) {
  const close = (): void => onPanel(null);
  if (panel.kind === 'book') return <BookPanel day={day} wearer={panel.wearer} kind={panel.visit ?? 'longFollowUp'} onDone={onDone} onClose={close} />;
  if (panel.kind === 'redEye') return <TriagePanel wearer={null} onDone={onDone} onClose={close} />;
  // As it is now, whoever changed it.
  const row = day.rows.find((r) => r.appointmentId === panel.row.appointmentId) ?? panel.row;
  if (panel.kind === 'look') return <AppointmentPanel row={row} onMove={() => onPanel({ kind: 'move', row })} onDone={onDone} onClose={close} />;
  const { to, refused } = panel;
  return <MovePanel row={row} day={day} {...(to ? { to } : {})} {...(refused ? { refused } : {})} onDone={onDone} onClose={close} />;
}
