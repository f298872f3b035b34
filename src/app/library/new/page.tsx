import { AppShell } from '@/features/common/AppShell';
import { NewFamily } from '@/features/library/NewFamily';
import { readLibrary } from '@/services/family/queries';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

export const metadata = { title: 'A new lens family' };

export default async function Page() {
  const page = await readPage(readLibrary, {}, '/library/new');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <AppShell session={page.value.session}>
      <NewFamily />
    </AppShell>
  );
}
