import { AppShell } from '@/features/common/AppShell';
import { Sets } from '@/features/drawer/sets/Sets';
import { readSets } from '@/services/diagnosticSet/queries';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

export const metadata = { title: 'Diagnostic sets' };

export default async function Page() {
  const page = await readPage(readSets, {}, '/drawer/sets');
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, ...data } = page.value;
  return (
    <AppShell session={session}>
      <Sets data={data} />
    </AppShell>
  );
}
