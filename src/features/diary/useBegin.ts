import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { firstStep, stepSlug } from '@/core';
import type { Problem } from '@/lib/outcome';
import { useServer } from '../common/ServerProvider';
import type { Row } from './strip';

/** The way into an appointment's visit: it is opened, or gone on with. @param onRefused the day is to be read anew */
export function useBegin(onRefused: () => void) {
  const router = useRouter();
  const { command } = useServer();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const begin = async (row: Row): Promise<void> => {
    const page = stepSlug(firstStep(row.kind));
    if (row.visitId !== null) return router.push(`/visits/${row.visitId}/${page}`);
    setBusy(true);
    const done = await command('openVisit', { wearerId: row.wearerId, kind: row.kind, appointmentId: row.appointmentId });
    setBusy(false);
    if (done?.ok) return router.push(`/visits/${done.value.visitId}/${page}`);
    if (done) {
      setProblem(done.error);
      onRefused();
    }
  };
  return { begin, problem, busy };
}
