'use client';
import { lazy, Suspense } from 'react';
import type { ReorderProps } from './Reorder';

// Words of refusals, days and money of an order: they come once the page is there.
const Reorder = lazy(() => import('./Reorder').then((m) => ({ default: m.Reorder })));

export function ReorderPage(props: ReorderProps) {
  return (
    <Suspense fallback={null}>
      <Reorder {...props} />
    </Suspense>
  );
}
