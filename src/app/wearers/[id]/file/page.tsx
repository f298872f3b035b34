import { AppShell } from '@/features/common/AppShell';
import { WearerFilePage } from '@/features/wearerFile/WearerFilePage';
import { readTimeline } from '@/services/personFile/queries';
import { readPage } from '../../../access';
import { Refused } from '../../../Refused';

export const metadata = { title: 'Wearer' };

export default async function Page({ params, searchParams }: { params: Promise<{ id: string }>; searchParams: Promise<{ paper?: string }> }) {
  const { id } = await params;
  const paper = (await searchParams).paper === '1';
  const page = await readPage(readTimeline, { wearerId: id, whole: paper }, `/wearers/${id}/file`);
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <AppShell session={page.value.session}>
      <WearerFilePage page={page.value} paper={paper} />
    </AppShell>
  );
}
