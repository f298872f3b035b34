import { AppShell } from '@/features/common/AppShell';
import { Reorder } from '@/features/reorder/Reorder';
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
      <Reorder data={data} />
    </AppShell>
  );
}
