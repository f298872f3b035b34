'use client';
import { useTranslations } from 'use-intl';
import type { AwaitedOrder } from '@/db/orderDesk';
import drawerProblems from '@/i18n/messages/en/drawerProblems.messages.json';
import visitProblems from '@/i18n/messages/en/visitProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Panel } from '@/ui/Panel';
import { ReceiptForm } from '../common/receipt/ReceiptForm';
import { powerWords } from './powerWords';

/** What came of one order, in a panel over the list. */
function Receiving({ order, onDone, onClose }: { readonly order: AwaitedOrder; readonly onDone: () => void; readonly onClose: () => void }) {
  const t = useTranslations('orders');
  const lines = order.lines
    .filter((line) => line.received < line.ordered)
    .map((line) => ({ eye: line.eye, power: powerWords(line), familyName: line.familyName, missing: line.ordered - line.received }));
  return (
    <Panel open wide onClose={onClose} title={t('receiveTitle', { number: order.number, name: order.wearerName })}>
      <ReceiptForm orderId={order.orderId} kind={order.kind} lines={lines} onDone={onDone} first>
        <Button onClick={onClose}>{t('cancel')}</Button>
      </ReceiptForm>
    </Panel>
  );
}

export const ReceiveOrder = withWords({ problems: { ...drawerProblems, ...visitProblems } }, Receiving);
