'use client';
import { lazy, Suspense } from 'react';
import type { SupplyTab } from './SupplyTabs';

const Tabs = lazy(() => import('./SupplyTabs').then((m) => ({ default: m.SupplyTabs })));

/** The tabs of the desk's pages, which come once the page is there; their place is kept. */
export const SupplyTabs = ({ here }: { readonly here: SupplyTab }) => (
  <Suspense fallback={<div className="tabs min-h-[44px]" />}>
    <Tabs here={here} />
  </Suspense>
);
