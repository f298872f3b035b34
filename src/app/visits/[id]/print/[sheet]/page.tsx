import { notFound } from 'next/navigation';
import { CostSheet } from '@/features/visit/print/CostSheet';
import { CopySheet, ReferralSheet, SummarySheet } from '@/features/visit/print/sheets';
import { VisitPage } from '@/features/visit/shell/VisitPage';
import { readVisit } from '@/services/visit/queries';
import { readPage } from '../../../../access';
import { Refused } from '../../../../Refused';

const SHEETS = { referral: ReferralSheet, summary: SummarySheet, prescription: CopySheet, cost: CostSheet } as const;

export const metadata = { title: 'Print' };

export default async function Page({ params }: { params: Promise<{ id: string; sheet: string }> }) {
  const { id, sheet } = await params;
  if (!Object.hasOwn(SHEETS, sheet)) notFound();
  const read = await readPage(readVisit, { visitId: id, page: 'print' }, `/visits/${id}/print/${sheet}`);
  if (!read.ok) return <Refused problem={read.error} />;
  const Sheet = SHEETS[sheet as keyof typeof SHEETS];
  return (
    <VisitPage page="print" session={read.value.session} part={JSON.stringify(read.value.part)}>
      <Sheet />
    </VisitPage>
  );
}
