'use client';
import { useTranslations } from 'use-intl';
import { ANSWER_DOUBTS, EYES, type Order, type OrderState } from '@/core';
import { formatDay, formatMoment } from '@/i18n/format';
import { Stated, type State } from '@/ui/marks';
import { useEyeWords } from '../eyeWords';
import { useServer } from '../ServerProvider';

const EVENT_STATE: Readonly<Record<OrderState, State>> = {
  placed: 'miss',
  sendFailed: 'watch',
  doubtful: 'stop',
  acknowledged: 'ok',
  backordered: 'watch',
  refused: 'stop',
  shipped: 'ok',
  delayed: 'watch',
  delivered: 'watch',
  arrived: 'ok',
  notArrived: 'watch',
  received: 'ok',
  cancelAsked: 'miss',
  cancelled: 'stop',
  cancelRefused: 'watch',
};

/** What became of an order so far, oldest first. */
export function OrderEvents({ order }: { readonly order: Pick<Order, 'events'> }) {
  const t = useTranslations('orderStory');
  const { session } = useServer();
  const eyeWords = useEyeWords();
  /** Which boxes came, by eye. */
  const boxesWords = (detail: Order['events'][number]['detail']): string =>
    EYES.flatMap((eye) => (detail[eye] === undefined ? [] : [t('eventBoxes', { count: Number(detail[eye]), eye: eyeWords.short(eye) })])).join(', ');
  return order.events.map((event, index) => (
    <div key={index} className="flex justify-between gap-4 border-b border-rule py-2">
      <Stated state={EVENT_STATE[event.state]}>
        {t(`event.${event.state}`, {
          reference: event.supplierReference ?? '',
          due: event.dueOn ? formatDay(event.dueOn) : '',
          boxes: boxesWords(event.detail),
          reason: event.detail['reason'] ?? '',
        })}
      </Stated>
      {event.state === 'doubtful' ? <Doubt detail={event.detail} /> : null}
      <span className="label">{formatMoment(event.at, session.practice.timeZone)}</span>
    </div>
  ));
}

/** Why an answer does not fit, and what was answered. */
function Doubt({ detail }: { readonly detail: Order['events'][number]['detail'] }) {
  const t = useTranslations('orderStory');
  const doubt = ANSWER_DOUBTS.find((d) => d === detail['problem']);
  return (
    <span className="min-w-0 flex-1 break-words">
      {doubt ? t(`doubts.${doubt}`) : null} {detail['said'] ? <span className="note font-mono block">{detail['said']}</span> : null}
    </span>
  );
}
