'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { lazy, Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import { daysBetween } from '@/core';
import type { AwaitedOrder } from '@/db/orderDesk';
import { formatDay } from '@/i18n/format';
import orderStoryWords from '@/i18n/messages/en/orderStory.messages.json';
import ordersWords from '@/i18n/messages/en/orders.messages.json';
import eyesWords from '@/i18n/messages/en/eyes.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { EyeBadge, Stated } from '@/ui/marks';
import { AppPage } from '../common/AppPage';
import { useEyeWords } from '../common/eyeWords';
import { useServer } from '../common/ServerProvider';
import { WearerLink } from '../common/WearerLink';
import { SupplyTabs } from '../common/LazySupplyTabs';
import { powerWords } from './powerWords';

const ReceiveOrder = lazy(() => import('./ReceiveOrder').then((m) => ({ default: m.ReceiveOrder })));

/** What is on its way to the practice, the one due first at the top; received here, without a visit. */
function OrdersPage({ orders, more }: { readonly orders: readonly AwaitedOrder[]; readonly more: boolean }) {
  const t = useTranslations('orders');
  const router = useRouter();
  const [receiving, setReceiving] = useState<AwaitedOrder | null>(null);
  const [done, setDone] = useState<AwaitedOrder | null>(null);
  return (
    <AppPage place="orders" title={t('title')}>
      <section className="px-6 py-3">
        <SupplyTabs here="orders" />
        <p className="label pt-2">{t('line')}</p>
        <p role="status" className="py-1">
          {done ? (
            <>
              <Stated state="ok">{t('done', { number: done.number })}</Stated>{' '}
              {done.kind === 'supply' ? (
                <Link className="underline" href={`/diary?for=${done.wearerId}&visit=collection`} prefetch={false}>
                  {t('bookNext')}
                </Link>
              ) : null}
            </>
          ) : null}
        </p>
        {orders.length === 0 ? (
          <p className="py-4">{t('none')}</p>
        ) : (
          <table className="ledger w-full" data-testid="orders">
            <thead>
              <tr>
                {(['due', 'whose', 'what', 'state'] as const).map((head) => (
                  <th key={head} scope="col">
                    {t(head)}
                  </th>
                ))}
                <th scope="col" />
              </tr>
            </thead>
            <tbody>
              {orders.map((order) => (
                <OrderRow key={order.orderId} order={order} onReceive={() => setReceiving(order)} />
              ))}
            </tbody>
          </table>
        )}
        {more ? <p className="py-2">{t('more', { count: orders.length })}</p> : null}
      </section>
      <Suspense fallback={null}>
        {receiving ? (
          <ReceiveOrder
            order={receiving}
            onClose={() => setReceiving(null)}
            onDone={() => {
              setDone(receiving);
              setReceiving(null);
              router.refresh();
            }}
          />
        ) : null}
      </Suspense>
    </AppPage>
  );
}

function OrderRow({ order, onReceive }: { readonly order: AwaitedOrder; readonly onReceive: () => void }) {
  const t = useTranslations('orders');
  const story = useTranslations('orderStory');
  const eyeWords = useEyeWords();
  const { session } = useServer();
  const late = order.dueOn === null ? 0 : daysBetween(order.dueOn, session.today);
  return (
    <tr data-testid={`order-${order.number}`}>
      <td>
        {order.dueOn === null ? <span className="label">{t('noDay')}</span> : formatDay(order.dueOn)}
        {late > 0 ? (
          <div>
            <Stated state="watch">{t('lateBy', { days: late })}</Stated>
          </div>
        ) : null}
      </td>
      <td>
        <WearerLink id={order.wearerId} name={order.wearerName} />
        <Link
          className="label underline block"
          href={`/orders/${order.orderId}`}
          prefetch={false}
          aria-label={t('open', { number: order.number, name: order.wearerName })}
        >
          {[t('number', { number: order.number }), order.kind === 'trial' ? t('trial') : null].filter(Boolean).join(' · ')}
        </Link>
      </td>
      <td>
        {order.lines.map((line) => (
          <div key={line.eye} className="flex gap-2 items-center py-0.5">
            <EyeBadge eye={line.eye} />
            <span className="power">{powerWords(line) ?? t('raw')}</span>
            <span className="label">{[line.familyName, eyeWords.aim(line.aim)].filter(Boolean).join(' · ')}</span>
            <span className="label ml-auto">{t('packs', { eye: eyeWords.short(line.eye), received: line.received, ordered: line.ordered })}</span>
          </div>
        ))}
      </td>
      <td>
        {story(`stage.${order.stage}`)}
        <div className="label">{order.supplierName}</div>
        {order.lines.flatMap((line) =>
          line.faults.map((fault) => (
            <div key={`${line.eye} ${fault}`}>
              <Stated state="stop">{t('fault', { eye: eyeWords.name(line.eye), fault: story(`fault.${fault}`) })}</Stated>
            </div>
          )),
        )}
      </td>
      <td>
        <Button aria-label={t('receiveOne', { number: order.number, name: order.wearerName })} onClick={onReceive}>
          {t('receive')}
        </Button>
      </td>
    </tr>
  );
}

export const Orders = withWords({ orders: ordersWords, orderStory: orderStoryWords, eyes: eyesWords }, OrdersPage);
