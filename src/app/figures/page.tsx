import { AppShell } from '@/features/common/AppShell';
import { Figures } from '@/features/figures/Figures';
import { readFigures } from '@/services/figures/queries';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Figures' };

export default async function Page() {
  const page = await readPage(readFigures, {}, '/figures');
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, ...data } = page.value;
  return (
    <AppShell session={session}>
      <Figures data={data} />
    </AppShell>
  );
}
