import type { ReactNode } from 'react';
import { VisitRoom } from '@/features/common/Room';
import { readVisit } from '@/services/visits';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

/** One record for all steps of a visit: going between steps keeps it. */
export default async function Layout({ params, children }: { readonly params: Promise<{ id: string }>; readonly children: ReactNode }) {
  const { id } = await params;
  const page = await readPage(readVisit, { visitId: id }, `/visits/${id}/history`);
  if (!page.ok) return <Refused problem={page.error} />;
  return <VisitRoom record={page.value}>{children}</VisitRoom>;
}
