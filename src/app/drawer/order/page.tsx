import { AppShell } from '@/features/common/AppShell';
import { Restock } from '@/features/restock/Restock';
import { readRestock } from '@/services/trialStock/levels';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

export const metadata = { title: 'Trial lenses to order' };

export default async function Page() {
  const page = await readPage(readRestock, {}, '/drawer/order');
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, ...data } = page.value;
  return (
    <AppShell session={session}>
      <Restock {...data} />
    </AppShell>
  );
}
