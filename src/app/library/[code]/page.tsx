import { AppShell } from '@/features/common/AppShell';
import { Family } from '@/features/library/Family';
import { readFamily } from '@/services/family/queries';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

export const metadata = { title: 'Lens family' };

export default async function Page({ params }: { params: Promise<{ code: string }> }) {
  const { code } = await params;
  const page = await readPage(readFamily, { code }, `/library/${code}`);
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <AppShell session={page.value.session}>
      <Family key={page.value.versions[0]?.id ?? code} page={page.value} />
    </AppShell>
  );
}
