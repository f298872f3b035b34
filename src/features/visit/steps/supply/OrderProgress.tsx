'use client';
import { useTranslations } from 'use-intl';
import { ANSWER_DOUBTS, EYES, isAnswered, stateOf, type Order } from '@/core';
import { formatDay, formatMoment } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Stated, type State } from '@/ui/marks';
import { useEyeWords } from '../../../common/eyeWords';
import { useServer } from '../../../common/ServerProvider';
import { BoxesHere } from './BoxesHere';
import { BoxesCame } from './BoxesCame';

const EVENT_STATE: Readonly<Record<ReturnType<typeof stateOf>, State>> = {
  placed: 'miss',
  sendFailed: 'watch',
  doubtful: 'stop',
  acknowledged: 'ok',
  backordered: 'watch',
  refused: 'stop',
  received: 'ok',
};

/** One order, and what became of it so far. */
export function OrderProgress({ order, visitId, mayOrder }: { readonly order: Order; readonly visitId: string; readonly mayOrder: boolean }) {
  const t = useTranslations('supply');
  const { command, session } = useServer();
  const eyeWords = useEyeWords();
  const state = stateOf(order);
  /** Which boxes came, by eye. */
  const boxesWords = (detail: Order['events'][number]['detail']): string =>
    EYES.flatMap((eye) => (detail[eye] === undefined ? [] : [t('eventBoxes', { count: Number(detail[eye]), eye: eyeWords.short(eye) })])).join(', ');
  return (
    <section className="px-6 py-4 max-w-[760px]" data-testid="order" data-state={state}>
      <h2 className="border-b border-rule-2 pb-1">{t('order', { number: order.number })}</h2>
      {order.events.map((event, index) => (
        <div key={index} className="flex justify-between gap-4 border-b border-rule py-2">
          <Stated state={EVENT_STATE[event.state]}>
            {t(`event.${event.state}`, {
              reference: event.supplierReference ?? '',
              due: event.dueOn ? formatDay(event.dueOn) : '',
              boxes: boxesWords(event.detail),
            })}
          </Stated>
          {event.state === 'doubtful' ? <Doubt detail={event.detail} /> : null}
          <span className="label">{formatMoment(event.at, session.practice.timeZone)}</span>
        </div>
      ))}
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
      {mayOrder && state !== 'refused' ? <BoxesCame order={order} /> : null}
      <BoxesHere order={order} />
    </section>
  );
}

/** Why an answer does not fit, and what was answered. */
function Doubt({ detail }: { readonly detail: Order['events'][number]['detail'] }) {
  const t = useTranslations('supply');
  const doubt = ANSWER_DOUBTS.find((d) => d === detail['problem']);
  return (
    <span className="min-w-0 flex-1 break-words">
      {doubt ? t(`doubts.${doubt}`) : null} {detail['said'] ? <span className="note font-mono block">{detail['said']}</span> : null}
    </span>
  );
}
