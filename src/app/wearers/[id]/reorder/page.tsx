import { AppShell } from '@/features/common/AppShell';
import { ReorderPage } from '@/features/reorder/ReorderPage';
import { readReorder } from '@/services/reorder/queries';
import { readPage } from '../../../access';
import { Refused } from '../../../Refused';

export const metadata = { title: 'Reorder' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const page = await readPage(readReorder, { wearerId: id }, `/wearers/${id}/reorder`);
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, ...data } = page.value;
  return (
    <AppShell session={session}>
      <ReorderPage data={data} />
    </AppShell>
  );
}
