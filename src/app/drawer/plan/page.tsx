import { AppShell } from '@/features/common/AppShell';
import { Coverage } from '@/features/coverage/Coverage';
import { readCoverage } from '@/services/coverage/queries';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

export const metadata = { title: 'Plan the trial drawer' };

export default async function Page() {
  const page = await readPage(readCoverage, {}, '/drawer/plan');
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, ...data } = page.value;
  return (
    <AppShell session={session}>
      <Coverage data={data} />
    </AppShell>
  );
}
