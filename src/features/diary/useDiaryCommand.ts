import { useState } from 'react';
import type { Problem } from '@/lib/outcome';
import type { ServiceInput } from '../common/server';
import { useServer } from '../common/ServerProvider';

export type DiaryCommand =
  'bookAppointment' | 'moveAppointment' | 'markAppointment' | 'sayLate' | 'undoAppointment' | 'addTask' | 'changeTask' | 'finishTask' | 'openVisit';

/** Sends a command of the diary. @param onDone told once it is done, or somebody else was quicker: the day is to be read anew */
export function useDiaryCommand(onDone: () => void) {
  const { command } = useServer();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const send = async <Name extends DiaryCommand>(name: Name, input: ServiceInput<Name>): Promise<boolean> => {
    setBusy(true);
    const done = await command(name, input);
    setBusy(false);
    if (!done) return false;
    setProblem(done.ok ? null : done.error);
    if (done.ok || done.error.kind === 'conflict') onDone();
    return done.ok;
  };
  return { send, problem, setProblem, busy };
}
