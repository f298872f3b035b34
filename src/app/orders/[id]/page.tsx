import { AppShell } from '@/features/common/AppShell';
import { OrderDetail } from '@/features/orders/OrderDetail';
import { readOrder } from '@/services/order/queries';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

export const metadata = { title: 'Order' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const page = await readPage(readOrder, { orderId: id }, `/orders/${id}`);
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, ...data } = page.value;
  return (
    <AppShell session={session}>
      <OrderDetail data={data} />
    </AppShell>
  );
}
