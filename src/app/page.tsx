import { AppShell } from '@/features/common/AppShell';
import { Today } from '@/features/today/Today';
import { readToday } from '@/services/visit/queries';
import { readPage } from './access';
import { Refused } from './Refused';

export const metadata = { title: 'Today' };

export default async function Page() {
  const page = await readPage(readToday, {}, '/');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <AppShell session={page.value.session}>
      <Today rows={page.value.rows} />
    </AppShell>
  );
}
