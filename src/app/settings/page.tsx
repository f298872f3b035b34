import { AppShell } from '@/features/common/AppShell';
import { Settings } from '@/features/settings/Settings';
import { readSettings } from '@/services/setting/queries';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Settings' };

export default async function Page() {
  const page = await readPage(readSettings, {}, '/settings');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <AppShell session={page.value.session}>
      <Settings changes={page.value.changes} careProducts={page.value.careProducts} />
    </AppShell>
  );
}
