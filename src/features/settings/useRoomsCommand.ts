import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Problem } from '@/lib/outcome';
import type { ServiceInput } from '../common/server';
import { useServer } from '../common/ServerProvider';

type RoomsCommand = 'addRoom' | 'changeRoom' | 'setOpeningHours' | 'setClosedDay';

/** Sends a command about rooms and hours, and reads the page anew once it is done. */
export function useRoomsCommand() {
  const router = useRouter();
  const { command } = useServer();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const send = async <Name extends RoomsCommand>(name: Name, input: ServiceInput<Name>): Promise<boolean> => {
    setBusy(true);
    const done = await command(name, input);
    setBusy(false);
    if (!done) return false;
    setProblem(done.ok ? null : done.error);
    if (done.ok || done.error.kind === 'conflict') router.refresh();
    return done.ok;
  };
  return { send, problem, busy };
}
