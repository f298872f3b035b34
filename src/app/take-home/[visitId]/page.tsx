import { AppShell } from '@/features/common/AppShell';
import { TakeHomePage } from '@/features/takeHome/TakeHomePage';
import { readHomePage } from '@/services/takeHome/queries';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

export const metadata = { title: 'Page to take home' };

export default async function Page({ params }: { params: Promise<{ visitId: string }> }) {
  const { visitId } = await params;
  const read = await readPage(readHomePage, { visitId }, `/take-home/${visitId}`);
  if (!read.ok) return <Refused problem={read.error} />;
  return (
    <AppShell session={read.value.session}>
      <TakeHomePage first={read.value} />
    </AppShell>
  );
}
