'use client';
import { useTranslations } from 'use-intl';
import { isAnswered, isEnded, stateOf, type Order } from '@/core';
import { Button } from '@/ui/Button';
import { OrderEvents } from '../../../common/orderStory/OrderEvents';
import { useServer } from '../../../common/ServerProvider';
import { BoxesHere } from './BoxesHere';
import { BoxesCame } from './BoxesCame';

/** One order, and what became of it so far. */
export function OrderProgress({ order, visitId, mayOrder }: { readonly order: Order; readonly visitId: string; readonly mayOrder: boolean }) {
  const t = useTranslations('supply');
  const { command } = useServer();
  const state = stateOf(order);
  return (
    <section className="px-6 py-4 max-w-[760px]" data-testid="order" data-state={state}>
      <h2 className="border-b border-rule-2 pb-1">{t('order', { number: order.number })}</h2>
      <OrderEvents order={order} />
      {!isAnswered(order) ? (
        <div className="py-2 flex gap-4 items-center">
          <span className="label">{state === 'sendFailed' ? t('willTry') : state === 'doubtful' ? t('doubtNext') : t('onItsWay')}</span>
          {mayOrder && (state === 'sendFailed' || state === 'doubtful') ? (
            <Button look="quiet" onClick={() => void command('hastenOrder', { orderId: order.id, visitId })}>
              {t('tryNow')}
            </Button>
          ) : null}
        </div>
      ) : null}
      {mayOrder && !isEnded(order) ? <BoxesCame order={order} /> : null}
      <BoxesHere order={order} />
    </section>
  );
}
