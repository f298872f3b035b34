import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { dayIn, dueEye, dueProposal, examinationBooked, type DueProposal, type EyeRunway } from '@/core';
import type { DueWearer } from '@/db/eyeRunway';
import { useKey } from '../common/keys';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';

/** A line of the list: whose, which eye asks first, and what is proposed. */
export interface DueLine {
  readonly of: DueWearer;
  readonly first: EyeRunway | null;
  readonly proposal: DueProposal;
  /** Day of the examination that is booked. */
  readonly examinationOn: string | null;
}

/** Where the proposal of a line is done. */
export function placeOfProposal({ of, proposal }: DueLine): string {
  if (proposal.kind === 'see') return `/wearers/${of.wearerId}`;
  return proposal.kind === 'book' ? `/diary?for=${of.wearerId}&visit=fullAnnual` : `/wearers/${of.wearerId}/reorder`;
}

/** The list with one line chosen: down and up move, Enter does what it proposes, M keeps a message left. */
export function useDue(wearers: readonly DueWearer[]) {
  const router = useRouter();
  const { session } = useServer();
  const { today, practice } = session;
  const [chosen, setChosen] = useState(0);
  const sending = useSending<'recordReorderCall' | 'writeReminder'>(() => router.refresh());
  const lines = wearers.map((of): DueLine => {
    const booked = examinationBooked(of.appointments, { today, until: null, timeZone: practice.timeZone });
    const examinationOn = booked && dayIn(booked.startsAt, practice.timeZone);
    return { of, first: dueEye(of.eyes), proposal: dueProposal(of.eyes, { stopped: of.stopped, alerted: of.alerted, examinationOn }, today), examinationOn };
  });
  const at = Math.min(chosen, Math.max(0, lines.length - 1));
  const line = lines[at] ?? null;
  const accept = (of: DueLine): void => router.push(placeOfProposal(of));
  const write = (of: DueLine): void => void sending.send('writeReminder', { wearerId: of.of.wearerId });
  const end = (of: DueLine, outcome: 'message' | 'noLonger'): void =>
    void sending.send('recordReorderCall', { wearerId: of.of.wearerId, outcome, laterOn: null, note: '' });
  useKey('down,j', () => setChosen(Math.min(at + 1, lines.length - 1)), [at, lines.length], { preventDefault: true });
  useKey('up,k', () => setChosen(Math.max(at - 1, 0)), [at], { preventDefault: true });
  useKey('enter', () => line && accept(line), [line]);
  useKey('m', () => line && !sending.busy && end(line, 'message'), [line, sending.busy]);
  useKey('w', () => line && !sending.busy && write(line), [line, sending.busy]);
  return { lines, at, choose: setChosen, line, accept, end, problem: sending.problem, busy: sending.busy };
}
