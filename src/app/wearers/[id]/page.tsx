import { redirect } from 'next/navigation';
import { AppShell } from '@/features/common/AppShell';
import { WearerPage } from '@/features/wearers/WearerPage';
import { readWearer } from '@/services/wearer/queries';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

export const metadata = { title: 'Wearer' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const page = await readPage(readWearer, { wearerId: id }, `/wearers/${id}`);
  // A record that was merged is part of another one: an old address leads there.
  if (!page.ok && page.error.kind === 'ruleBroken' && page.error.rule === 'wearerMerged') redirect(`/wearers/${String(page.error.data?.['into'])}`);
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, ...file } = page.value;
  return (
    <AppShell session={session}>
      <WearerPage file={file} />
    </AppShell>
  );
}
