'use client';
import { useTranslations } from 'use-intl';
import { boxesOf, EYES, formatRefraction, type Order } from '@/core';
import { ReceiptForm } from '../../../common/receipt/ReceiptForm';
import { useVisit } from '../../shell/VisitProvider';

/** Boxes of an order of this visit that came. */
export function BoxesCame({ order }: { readonly order: Order }) {
  const t = useTranslations('supply');
  const { record, refresh } = useVisit();
  const lines = EYES.flatMap((eye) => {
    const boxes = boxesOf(order, eye);
    const missing = boxes ? boxes.ordered - boxes.received : 0;
    if (missing <= 0) return [];
    const line = order.lines.find((l) => l.eye === eye);
    const lens = line?.lensId ? record.lenses[line.lensId] : undefined;
    const power = lens ? formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }) : null;
    return [{ eye, power, familyName: lens?.familyName ?? line?.raw?.familyName ?? null, missing }];
  });
  if (lines.length === 0) return null;
  return (
    <div className="py-3" data-testid="boxes-came">
      <h3 className="font-[620]">{t('cameTitle')}</h3>
      <ReceiptForm orderId={order.id} kind={order.kind} lines={lines} onDone={() => void refresh()} />
    </div>
  );
}
