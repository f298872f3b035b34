import { lazy, Suspense } from 'react';
import { servesNear } from '@/core';
import { useVisit } from './VisitProvider';

const Driving = lazy(() => import('./Driving').then((m) => ({ default: m.Driving })));

/** Asks about driving where lenses that serve near go home; nothing where none do. */
export function DrivingFirst() {
  const { record } = useVisit();
  if (!servesNear(record.nearFindings)) return null;
  return (
    <Suspense fallback={null}>
      <Driving />
    </Suspense>
  );
}
