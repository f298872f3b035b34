import { AppShell } from '@/features/common/AppShell';
import { Orders } from '@/features/orders/Orders';
import { readOrders } from '@/services/order/queries';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Orders on their way' };

export default async function Page() {
  const page = await readPage(readOrders, {}, '/orders');
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, ...desk } = page.value;
  return (
    <AppShell session={session}>
      <Orders {...desk} />
    </AppShell>
  );
}
