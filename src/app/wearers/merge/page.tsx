import { AppShell } from '@/features/common/AppShell';
import { Merges } from '@/features/wearers/Merges';
import { readMerges } from '@/services/wearerMerge/queries';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

export const metadata = { title: 'Two records of one person' };

export default async function Page() {
  const page = await readPage(readMerges, {}, '/wearers/merge');
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, merges } = page.value;
  return (
    <AppShell session={session}>
      <Merges merges={merges} />
    </AppShell>
  );
}
