import { useState } from 'react';
import type { Problem } from '@/lib/outcome';
import type { CommandName, ServiceInput } from './server';
import { useServer } from './ServerProvider';

/**
 * Sends commands of a page one at a time, and keeps why the last one was refused.
 * @param onDone told once one is done, or somebody else was quicker: what is shown is to be read anew
 */
export function useSending<Names extends CommandName>(onDone: () => void) {
  const { command } = useServer();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const send = async <Name extends Names>(name: Name, input: ServiceInput<Name>): Promise<boolean> => {
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
