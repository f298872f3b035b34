'use client';
import { lazy, Suspense } from 'react';
import type { WholeFileProps } from './WholeFile';

// The words of everything that can be recorded: they come once the page is there.
const WholeFile = lazy(() => import('./WholeFile').then((m) => ({ default: m.WholeFile })));

export function WearerFilePage(props: WholeFileProps) {
  return (
    <Suspense fallback={null}>
      <WholeFile {...props} />
    </Suspense>
  );
}
