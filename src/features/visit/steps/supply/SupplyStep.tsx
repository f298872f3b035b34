'use client';
import { useRouter } from 'next/navigation';
import { lazy, useRef, type RefObject } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useTranslations } from 'use-intl';
import { mayOpenVisit } from '@/core';
import { formatDay } from '@/i18n/format';
import draftWords from '@/i18n/messages/en/draft.messages.json';
import purposesWords from '@/i18n/messages/en/purposes.messages.json';
import rawWords from '@/i18n/messages/en/raw.messages.json';
import supplyProblems from '@/i18n/messages/en/supplyProblems.messages.json';
import orderStoryWords from '@/i18n/messages/en/orderStory.messages.json';
import supplyWords from '@/i18n/messages/en/supply.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { Stated, StateMark } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { OnceAlive } from '../../../common/OnceAlive';
import { problemAt, useProblemWords } from '../../../common/words';
import { DraftLine } from '../../shell/DraftLine';
import { VisitFrame, workingsOf } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { OrderProgress } from './OrderProgress';
import { SupplyRows } from './SupplyRows';
import { useSupply, type Supply } from './useSupply';
import { useSupplyWorking } from './useSupplyWorking';

const CareMeets = lazy(() => import('../../shell/care/CareMeets').then((m) => ({ default: m.CareMeets })));

const OldBoxes = lazy(() => import('../../../common/orderStory/OldBoxes').then((m) => ({ default: m.OldBoxes })));

/** Boxes for each eye, the order and what became of it, and the days they last to. */
function SupplyStepBody() {
  const t = useTranslations('supply');
  const purposes = useTranslations('purposes');
  const words = useProblemWords();
  const { record, problem, refresh } = useVisit();
  const supply = useSupply();
  const blocks = useSupplyWorking(supply);
  const form = useRef<HTMLFormElement>(null);
  const { draft, held, prescription, orders, order, mayOrder } = supply;
  const wordsAt = (path: string): string | null => {
    const found = problemAt(problem, path);
    return found ? words(found.code, found.data) : null;
  };
  useHotkeys('ctrl+enter', () => form.current?.requestSubmit(), { enableOnFormTags: true });
  return (
    <VisitFrame
      step="supply"
      workings={workingsOf(blocks, 'supply-right')}
      keys={[[['W'], t('keyWorking')]]}
      margin={
        <>
          <h2 className="mb-3">{t('reasoning')}</h2>
          {held.length > 1 ? (
            <Segment
              label={t('purpose')}
              values={held.map((p) => p.purpose)}
              value={prescription?.purpose ?? ''}
              word={(p) => purposes(p)}
              onChoose={(p) => draft.set('purpose', p)}
            />
          ) : null}
          {prescription ? <p className="mb-3">{t('until', { day: formatDay(prescription.expiresOn), number: prescription.number })}</p> : null}
        </>
      }
      actions={<SupplyActions supply={supply} form={form} />}
    >
      <OnceAlive>
        <CareMeets />
      </OnceAlive>
      {!prescription ? (
        <div className="p-8 max-w-[640px]">
          <h2 className="power mb-3">{t('emptyTitle')}</h2>
          <p>{t('emptyText')}</p>
        </div>
      ) : (
        <form ref={form} onSubmit={(event) => void supply.place(event)}>
          <SupplyRows supply={supply} prescription={prescription} />
          {supply.old.length > 0 ? (
            <div className="px-6">
              <OnceAlive>
                <OldBoxes boxes={supply.old} onDone={() => void refresh()} />
              </OnceAlive>
            </div>
          ) : null}
          {problem?.kind === 'invalid' && problemAt(problem, 'rightPacks')?.code === 'packsRequired' ? (
            <p className="problem px-6 py-2">
              <StateMark state="stop" />
              {words('packsRequired')}
            </p>
          ) : null}
          {problemAt(problem, 'pastExpiryNote') || draft.body.pastExpiry ? (
            <div className="px-6 py-2 max-w-[640px]">
              <Field
                label={t('pastExpiryWhy')}
                value={draft.body.pastExpiry ?? ''}
                onValue={(value) => draft.set('pastExpiry', value)}
                problem={wordsAt('pastExpiryNote')}
              />
            </div>
          ) : null}
          {!mayOrder && !order ? (
            <p className="px-6 py-2">
              <Stated state="watch">{t('onlyCoordinator')}</Stated>
            </p>
          ) : null}
        </form>
      )}
      {orders.map((o) => (
        <OrderProgress key={o.id} order={o} visitId={record.visit.id} mayOrder={mayOrder} />
      ))}
      <DraftLine draft={draft} />
    </VisitFrame>
  );
}

/** Ends the visit, and orders; once it is ordered, back to the wearer. */
function SupplyActions({ supply, form }: { readonly supply: Supply; readonly form: RefObject<HTMLFormElement | null> }) {
  const t = useTranslations('supply');
  const router = useRouter();
  const { record, run, busy } = useVisit();
  const { prescription, order, mayOrder, closed } = supply;
  const toWearer = (): void => router.push(`/wearers/${record.wearer.id}`);
  const close = async (): Promise<void> => {
    const done = await run('closeVisit', {}, t('closedToast'));
    if (done?.ok) toWearer();
  };
  const handedOver = record.handOvers.some((c) => c.current?.visitId === record.visit.id);
  return (
    <>
      {handedOver ? <Button onClick={() => router.push(`/take-home/${record.visit.id}`)}>{t('takeHome')}</Button> : null}
      <Button disabled={busy || closed || !mayOpenVisit(record.session.viewer.roles, record.visit.kind)} onClick={() => void close()}>
        {handedOver ? t('close') : t('closeWithout')}
      </Button>
      {order ? (
        <Button look="act" keys={['⏎']} data-enter="true" onClick={toWearer}>
          {t('toWearer')}
        </Button>
      ) : (
        <Button look="act" keys={['Ctrl ⏎']} disabled={busy || !prescription || !mayOrder || closed} onClick={() => form.current?.requestSubmit()}>
          {t('place')}
        </Button>
      )}
    </>
  );
}

export const SupplyStep = withWords(
  { draft: draftWords, purposes: purposesWords, raw: rawWords, orderStory: orderStoryWords, supply: supplyWords, problems: supplyProblems },
  SupplyStepBody,
);
