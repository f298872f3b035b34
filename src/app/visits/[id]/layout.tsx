import type { ReactNode } from 'react';
import { VisitShell } from '@/features/visit/shell/VisitShell';
import { readSession } from '@/services/visit/queries';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

/** What all steps of a visit stand in: going between steps keeps it. */
export default async function Layout({ params, children }: { readonly params: Promise<{ id: string }>; readonly children: ReactNode }) {
  const { id } = await params;
  const session = await readPage(readSession, {}, `/visits/${id}/history`);
  if (!session.ok) return <Refused problem={session.error} />;
  return (
    <VisitShell visitId={id} session={session.value}>
      {children}
    </VisitShell>
  );
}
