import { useEffect, useState } from 'react';
import { USUAL_MINUTES, type FreeSlot, type VisitKind } from '@/core';
import { useServer } from '../../../common/ServerProvider';

/** The next free times of a kind of visit from a day on; null while they are looked for. */
export function useFreeTimes(kind: VisitKind, from: string | null, wearerId: string): readonly FreeSlot[] | null {
  const { look } = useServer();
  const [found, setFound] = useState<{ readonly from: string; readonly slots: readonly FreeSlot[] } | null>(null);
  useEffect(() => {
    if (from === null) return undefined;
    let gone = false;
    const { chair, staff } = USUAL_MINUTES[kind];
    void look('findFree', { kind, from, chairMinutes: chair, staffMinutes: staff, roomId: null, staffId: null, wearerId }).then((done) => {
      if (!gone && done?.ok) setFound({ from, slots: done.value });
    });
    return () => {
      gone = true;
    };
  }, [look, kind, from, wearerId]);
  return found?.from === from ? found.slots : null;
}
