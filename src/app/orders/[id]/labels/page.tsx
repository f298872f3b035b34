import { bagCode, EYES } from '@/core';
import { BagLabels } from '@/features/orders/BagLabels';
import { AppShell } from '@/features/common/AppShell';
import { dataMatrixSvg } from '@/formats/label/dataMatrix';
import { readOrder } from '@/services/order/queries';
import { readPage } from '../../../access';
import { Refused } from '../../../Refused';

export const metadata = { title: 'Bag labels' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const page = await readPage(readOrder, { orderId: id }, `/orders/${id}/labels`);
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, ...data } = page.value;
  const { order } = data;
  const labels = EYES.flatMap((eye) => {
    const line = order.lines.find((l) => l.eye === eye);
    return order.receipts
      .filter((r) => r.orderLineId === line?.id && !r.handedOver)
      .map((receipt) => ({ eye, receipt, code: dataMatrixSvg(bagCode({ receiptId: receipt.id, eye })) }));
  });
  return (
    <AppShell session={session}>
      <BagLabels data={data} labels={labels} />
    </AppShell>
  );
}
