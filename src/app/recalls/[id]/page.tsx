import { AppShell } from '@/features/common/AppShell';
import { RecallList } from '@/features/recalls/RecallList';
import { readRecall } from '@/services/lotRecall/queries';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

export const metadata = { title: 'Recalled lot' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const page = await readPage(readRecall, { recallId: id }, `/recalls/${id}`);
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, ...data } = page.value;
  return (
    <AppShell session={session}>
      <RecallList data={data} />
    </AppShell>
  );
}
