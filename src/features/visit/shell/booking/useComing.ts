import { useEffect, useState } from 'react';
import type { ComingAppointment } from '@/core';
import { useServer } from '../../../common/ServerProvider';

/** The wearer's next appointment, where one is booked already; undefined while it is looked for. */
export function useComing(wearerId: string): ComingAppointment | null | undefined {
  const { look } = useServer();
  const [found, setFound] = useState<ComingAppointment | null | undefined>(undefined);
  useEffect(() => {
    let gone = false;
    void look('readWearer', { wearerId }).then((done) => {
      if (!gone && done?.ok) setFound(done.value.appointments.find((a) => a.state === 'booked') ?? null);
    });
    return () => {
      gone = true;
    };
  }, [look, wearerId]);
  return found;
}
