import { notFound } from 'next/navigation';
import { CostSheet } from '@/features/print/CostSheet';
import { CopySheet, ReferralSheet, SummarySheet } from '@/features/print/sheets';

const SHEETS = { referral: ReferralSheet, summary: SummarySheet, prescription: CopySheet, cost: CostSheet } as const;

export const metadata = { title: 'Print' };

export default async function Page({ params }: { params: Promise<{ sheet: string }> }) {
  const { sheet } = await params;
  if (!Object.hasOwn(SHEETS, sheet)) notFound();
  const Sheet = SHEETS[sheet as keyof typeof SHEETS];
  return <Sheet />;
}
