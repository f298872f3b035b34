'use client';
import type { ReactNode } from 'react';
import type { SessionContext } from '@/services/sessionContext';
import { AppShell } from '../../common/AppShell';
import { VisitStoreProvider } from './VisitStore';

/** What all pages of a visit stand in: going between steps keeps it. */
export function VisitShell({ visitId, session, children }: { readonly visitId: string; readonly session: SessionContext; readonly children: ReactNode }) {
  return (
    <AppShell session={session}>
      <VisitStoreProvider key={visitId} visitId={visitId}>
        {children}
      </VisitStoreProvider>
    </AppShell>
  );
}
