'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { lazy, Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import { boxesOf, EYES, formatRefraction, isAwaited, isEnded, stageOf, type Eye } from '@/core';
import type { AwaitedLine, AwaitedOrder } from '@/db/orderDesk';
import { formatDay, formatMoment } from '@/i18n/format';
import deskProblems from '@/i18n/messages/en/deskProblems.messages.json';
import eyesWords from '@/i18n/messages/en/eyes.messages.json';
import orderPageWords from '@/i18n/messages/en/orderPage.messages.json';
import orderStoryWords from '@/i18n/messages/en/orderStory.messages.json';
import ordersWords from '@/i18n/messages/en/orders.messages.json';
import reorderProblems from '@/i18n/messages/en/reorderProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import type { OrderPage } from '@/services/order/queries';
import { Button } from '@/ui/Button';
import { EyeBadge, Stated } from '@/ui/marks';
import { AppPage } from '../common/AppPage';
import { useEyeWords } from '../common/eyeWords';
import { OrderEvents } from '../common/orderStory/OrderEvents';
import { SupplyTabs } from '../common/LazySupplyTabs';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { WearerLink } from '../common/WearerLink';
import { useRefusalWords } from '../common/words';
import { Claims } from './Claims';
import { NotToBeHad } from './NotToBeHad';

const ReceiveOrder = lazy(() => import('./ReceiveOrder').then((m) => ({ default: m.ReceiveOrder })));
const CancelPanel = lazy(() => import('./CancelPanel').then((m) => ({ default: m.CancelPanel })));
const Telephoned = lazy(() => import('./Telephoned').then((m) => ({ default: m.Telephoned })));

export type OrderData = Omit<OrderPage, 'session'>;

/** The lines of an order as the list of those on their way shows them. */
function awaitedOf({ order, wearer, lenses }: OrderData): AwaitedOrder {
  const lines = order.lines.map((line): AwaitedLine => {
    const lens = line.lensId ? lenses[line.lensId] : undefined;
    const shipped = order.shipped.filter((s) => s.orderLineId === line.id);
    return {
      eye: line.eye,
      ordered: line.packs,
      received: boxesOf(order, line.eye)?.received ?? 0,
      announced: shipped.reduce((sum, s) => sum + s.packs, 0),
      faults: [...new Set(shipped.flatMap((s) => s.faults))],
      familyName: lens?.familyName ?? line.raw?.familyName ?? '',
      power: lens ? { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg } : null,
      add: lens?.addBand ?? null,
      aim: line.aim,
    };
  });
  const { id: orderId, number, kind, wearerId, placedAt, supplierName } = order;
  const dueOn = order.events.findLast((e) => e.dueOn !== null)?.dueOn ?? null;
  return { orderId, number, kind, wearerId, wearerName: wearer.name, placedAt, stage: stageOf(order), supplierName, dueOn, lines };
}

/** One order: what was asked for, what became of it, and what can be done about it. */
function OrderDetailPage({ data }: { readonly data: OrderData }) {
  const t = useTranslations('orderPage');
  const story = useTranslations('orderStory');
  const refusal = useRefusalWords();
  const router = useRouter();
  const { session } = useServer();
  const [panel, setPanel] = useState<'receive' | 'cancel' | 'telephone' | null>(null);
  const { send, problem, busy } = useSending<'recordArrived'>(() => router.refresh());
  const { order, wearer, supplier } = data;
  const stage = stageOf(order);
  const done = (): void => {
    setPanel(null);
    router.refresh();
  };
  const byTelephone = supplier !== null && supplier.endpoint === null;
  const arrived = (came: boolean): void => void send('recordArrived', { orderId: order.id, arrived: came });
  const straight = order.deliverTo === 'wearer' && !isEnded(order);
  return (
    <AppPage
      place="orders"
      title={t('title', { number: order.number })}
      strip={
        <div className="strip-cell">
          <div className="label">{formatDay(wearer.birthDate)}</div>
          <WearerLink id={wearer.id} name={wearer.name} />
        </div>
      }
      bar={
        <>
          {isAwaited(order) ? <Button onClick={() => setPanel('cancel')}>{t('cancel')}</Button> : null}
          {byTelephone && isAwaited(order) ? <Button onClick={() => setPanel('telephone')}>{t('telephone')}</Button> : null}
          {order.receipts.some((r) => !r.handedOver) && order.kind === 'supply' ? (
            <Link className="btn" href={`/orders/${order.id}/labels`} prefetch={false}>
              {t('labels')}
            </Link>
          ) : null}
          {isAwaited(order) && !straight ? (
            <Button look="act" onClick={() => setPanel('receive')}>
              {t('receive')}
            </Button>
          ) : null}
        </>
      }
    >
      <section className="px-6 py-3 max-w-[900px]" data-testid="order" data-stage={stage}>
        <SupplyTabs here="orders" />
        <p className="py-2">
          <Stated state={stage === 'refused' || stage === 'cancelled' ? 'stop' : stage === 'handedOver' || stage === 'received' ? 'ok' : 'miss'}>
            {story(`stage.${stage}`)}
          </Stated>{' '}
          <span className="label">
            {[
              supplier ? t('from', { supplier: supplier.name }) : t('noSupplier'),
              t('placed', { at: formatMoment(order.placedAt, session.practice.timeZone), name: order.placedByName }),
              order.deliverTo === 'wearer' ? t('straight') : null,
            ]
              .filter(Boolean)
              .join(' · ')}
          </span>
        </p>
        {data.held ? (
          <p className="pb-2">
            <Stated state="stop">{t('held')}</Stated>
          </p>
        ) : null}
        {order.kind === 'supply' ? <NotToBeHad stage={stage} wearerId={wearer.id} /> : null}
        {straight && stage !== 'arrived' ? (
          <p className="pb-3 flex gap-3 items-center">
            {t('arrivedAsk')}
            <Button disabled={busy} onClick={() => arrived(true)}>
              {t('arrivedYes')}
            </Button>
            <Button disabled={busy} onClick={() => arrived(false)}>
              {t('arrivedNo')}
            </Button>
          </p>
        ) : null}
        {problem ? (
          <p role="alert" className="pb-2">
            <Stated state="stop">{refusal(problem)}</Stated>
          </p>
        ) : null}
        <Lines data={data} />
        <h2 className="pt-4 pb-1 border-b border-rule-2">{t('story')}</h2>
        <OrderEvents order={order} />
        <Claims order={order} onDone={done} />
      </section>
      <Suspense fallback={null}>
        {panel === 'receive' ? <ReceiveOrder order={awaitedOf(data)} onClose={() => setPanel(null)} onDone={done} /> : null}
        {panel === 'cancel' ? <CancelPanel orderId={order.id} onClose={() => setPanel(null)} onDone={done} /> : null}
        {panel === 'telephone' ? <Telephoned orderId={order.id} telephone={supplier?.telephone ?? ''} onClose={() => setPanel(null)} onDone={done} /> : null}
      </Suspense>
    </AppPage>
  );
}

/** Each eye's boxes: ordered, announced, here, gone home. */
function Lines({ data }: { readonly data: OrderData }) {
  const t = useTranslations('orderPage');
  const story = useTranslations('orderStory');
  const eyeWords = useEyeWords();
  const { order, lenses } = data;
  const of = (eye: Eye) => {
    const line = order.lines.find((l) => l.eye === eye);
    const boxes = boxesOf(order, eye);
    return line && boxes
      ? [{ eye, line, boxes, lens: line.lensId ? lenses[line.lensId] : undefined, shipped: order.shipped.filter((s) => s.orderLineId === line.id) }]
      : [];
  };
  return (
    <table className="ledger w-full">
      <thead>
        <tr>
          <th scope="col" />
          {(['what', 'ordered', 'onTheRoad', 'came', 'home'] as const).map((head) => (
            <th key={head} scope="col">
              {t(head)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {EYES.flatMap(of).map(({ eye, line, boxes, lens, shipped }) => (
          <tr key={eye}>
            <td>
              <EyeBadge eye={eye} /> <span className="sr-only">{eyeWords.name(eye)}</span>
            </td>
            <td>
              <span className="power">
                {lens
                  ? [formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }), lens.addBand].filter(Boolean).join(' ')
                  : t('raw')}
              </span>{' '}
              <span className="label">{[lens?.familyName ?? line.raw?.familyName, eyeWords.aim(line.aim)].filter(Boolean).join(' · ')}</span>
              {[...new Set(shipped.flatMap((s) => s.faults))].map((fault) => (
                <div key={fault}>
                  <Stated state="stop">{story(`fault.${fault}`)}</Stated>
                </div>
              ))}
            </td>
            <td className="value">{line.packs}</td>
            <td className="value">{shipped.reduce((sum, s) => sum + s.packs, 0)}</td>
            <td className="value">{boxes.received}</td>
            <td className="value">{boxes.handedOver}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

export const OrderDetail = withWords(
  { orders: ordersWords, orderPage: orderPageWords, orderStory: orderStoryWords, eyes: eyesWords, problems: { ...reorderProblems, ...deskProblems } },
  OrderDetailPage,
);
