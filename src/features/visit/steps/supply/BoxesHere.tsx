'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { boxesOf, EYES, formatRefraction, may, type Order } from '@/core';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { EyeBadge, Stated } from '@/ui/marks';
import { BagCheck } from '../../../common/receipt/BagCheck';
import { DrivingFirst } from '../../shell/DrivingFirst';
import { useVisit } from '../../shell/VisitProvider';

/** Boxes that lie here until the wearer collects them; handed over they are what is worn now. */
export function BoxesHere({ order }: { readonly order: Order }) {
  const t = useTranslations('supply');
  const { record, run, busy } = useVisit();
  const [asked, setAsked] = useState(false);
  const [note, setNote] = useState('');
  const [seen, setSeen] = useState<readonly string[]>([]);
  const [wrong, setWrong] = useState(false);
  const boxes = EYES.flatMap((eye) => {
    const of = boxesOf(order, eye);
    return of ? [{ eye, ...of }] : [];
  });
  const here = boxes.flatMap(({ eye, here: receipts }) => receipts.map((receipt) => ({ eye, receipt })));
  const gone = boxes.filter((b) => b.handedOver > 0);
  const taught = record.lessons.some((l) => l.signOffId !== null);
  const closed = record.visit.closedAt !== null || !may(record.session.viewer.roles, 'handOver');
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const form = { orderId: order.id, receiptIds: here.map((h) => h.receipt.id), identityAsked: true as const, experienceNote: note };
    if ((await run('handOverBoxes', form, t('hereDone')))?.ok) setAsked(false);
  };
  return (
    <>
      {here.length > 0 ? (
        <form onSubmit={(event) => void submit(event)} className="py-3" data-testid="boxes-here">
          <h3 className="font-[620] mb-2">{t('hereTitle')}</h3>
          {here.map(({ eye, receipt }) => {
            const lens = record.lenses[receipt.lensId];
            return (
              <p key={receipt.id} className="flex flex-wrap gap-3 items-center py-1" data-testid={`here-${eye}`}>
                <EyeBadge eye={eye} />
                <span className="power">{lens ? formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }) : null}</span>
                <span>{t('hereLine', { packs: receipt.packs, lot: receipt.lot, day: formatDay(receipt.expiresOn) })}</span>
                {seen.includes(receipt.id) ? <Stated state="ok">{t('bag.seen')}</Stated> : null}
              </p>
            );
          })}
          {closed ? null : <BagCheck orderId={order.id} onSeen={(ids) => setSeen((had) => [...new Set([...had, ...ids])])} onWrong={setWrong} />}
          {closed ? null : <DrivingFirst />}
          {taught || closed ? null : <Field label={t('hereNote')} value={note} onValue={setNote} maxLength={400} className="max-w-[520px]" />}
          {closed ? null : (
            <div className="flex flex-wrap gap-4 items-center mt-2">
              <label className="flex gap-2 items-center min-h-8">
                <input type="checkbox" className="w-5 h-5" checked={asked} onChange={(event) => setAsked(event.target.checked)} />
                {t('hereAsk', { name: record.wearer.name, day: formatDay(record.wearer.birthDate) })}
              </label>
              <Button type="submit" disabled={busy || !asked || wrong}>
                {t('hereDo')}
              </Button>
            </div>
          )}
        </form>
      ) : null}
      {gone.map(({ eye, handedOver }) => (
        <p key={eye} className="flex gap-3 items-center py-1" data-testid={`boxes-gone-${eye}`}>
          <EyeBadge eye={eye} />
          <Stated state="ok">{t('gone', { packs: handedOver })}</Stated>
        </p>
      ))}
    </>
  );
}
