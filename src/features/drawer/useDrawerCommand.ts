import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Problem } from '@/lib/outcome';
import type { ServiceInput } from '../common/server';
import { useServer } from '../common/ServerProvider';

type DrawerCommand = 'receiveTrials' | 'discardTrials' | 'countTrials';

/** Sends a command of the drawer, and reads the drawer anew once it is done. */
export function useDrawerCommand() {
  const router = useRouter();
  const { command } = useServer();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const send = async <Name extends DrawerCommand>(name: Name, input: ServiceInput<Name>): Promise<boolean> => {
    setBusy(true);
    const done = await command(name, input);
    setBusy(false);
    if (!done) return false;
    setProblem(done.ok ? null : done.error);
    if (done.ok || done.error.kind === 'conflict') router.refresh();
    return done.ok;
  };
  return { send, problem, setProblem, busy };
}
