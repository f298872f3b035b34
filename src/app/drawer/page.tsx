import { AppShell } from '@/features/common/AppShell';
import { Drawer } from '@/features/drawer/Drawer';
import { readDrawer } from '@/services/trialStock/queries';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Trial drawer' };

export default async function Page() {
  const page = await readPage(readDrawer, {}, '/drawer');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <AppShell session={page.value.session}>
      <Drawer stock={page.value.stock} loans={page.value.loans} libraryTag={page.value.libraryTag} />
    </AppShell>
  );
}
