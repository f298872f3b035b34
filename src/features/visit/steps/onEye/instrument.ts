import type { InstrumentRow } from '@/core';
import { useDeviceChoice } from '../../../common/deviceChoice';

/** The slit lamp this device stands beside: its scale says what a bare number means. */
export function useInstrument(instruments: readonly InstrumentRow[]) {
  const [id, choose] = useDeviceChoice('instrument');
  return { instrument: instruments.find((i) => i.id === id) ?? null, choose };
}
