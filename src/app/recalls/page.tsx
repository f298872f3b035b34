import { AppShell } from '@/features/common/AppShell';
import { Recalls } from '@/features/recalls/Recalls';
import { readRecalls } from '@/services/lotRecall/queries';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Recalled lots' };

export default async function Page() {
  const page = await readPage(readRecalls, {}, '/recalls');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <AppShell session={page.value.session}>
      <Recalls recalls={page.value.recalls} families={page.value.families} />
    </AppShell>
  );
}
