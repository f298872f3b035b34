import { useRef, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { boxesOf, EYES, eyeSupply, inForce, isAnswered, may, oldBoxes, orderOf, type Eye, type EyeSupply, type Order } from '@/core';
import { useDraft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { useAwaited } from './useAwaited';
import { costOf, packsTyped, sourceOf } from './model';

/** The prescription that is ordered under, the boxes for each eye, and the order. */
export function useSupply() {
  const t = useTranslations('supply');
  const { record, run, refresh } = useVisit();
  const draft = useDraft('supply');
  const requestKey = useRef<string | null>(null);
  const held = inForce(record.prescriptions);
  const prescription = held.find((p) => p.purpose === draft.body.purpose) ?? held[0] ?? null;
  // Boxes that lie here are to be seen whatever is in force by now.
  const lieHere = (o: Order): boolean => EYES.some((e) => (boxesOf(o, e)?.here.length ?? 0) > 0);
  const orders = record.orders.filter((o) => o.prescriptionId === prescription?.id || lieHere(o));
  useAwaited(
    orders.filter((o) => !isAnswered(o)),
    refresh,
  );

  /** The order that an eye waits for; none once its boxes are handed over, or where it was refused. */
  const waitsFor = (e: Eye) => (prescription ? orderOf(record, prescription, e) : null);
  const typed = (e: Eye): number | null => packsTyped(draft.body[`${e}Packs`]);
  const source = sourceOf(record);
  const supplyOf = (e: Eye): EyeSupply | null => prescription && eyeSupply(source, prescription, e, typed(e));
  const supplies: Readonly<Record<Eye, EyeSupply | null>> = { right: supplyOf('right'), left: supplyOf('left') };
  const place = async (event?: FormEvent): Promise<void> => {
    event?.preventDefault();
    if (!prescription) return;
    // One key for this intention: pressed twice, or sent again after an outage, it is one order.
    requestKey.current ??= crypto.randomUUID();
    const packs = (e: Eye): number => (supplies[e] && waitsFor(e) === null ? (typed(e) ?? supplies[e].proposed) : 0);
    const form = {
      requestKey: requestKey.current,
      prescriptionId: prescription.id,
      rightPacks: packs('right'),
      leftPacks: packs('left'),
      pastExpiryNote: draft.body.pastExpiry ?? '',
    };
    const done = await run('placeOrder', form, t('placedToast'));
    if (!done?.ok) return;
    requestKey.current = null;
    draft.clear();
  };
  return {
    draft,
    held,
    prescription,
    orders,
    waitsFor,
    /** Every prescribed eye waits for an order: there is nothing to order now. */
    order: prescription && EYES.every((e) => !supplies[e] || waitsFor(e) !== null) ? (orders[0] ?? null) : null,
    supplies,
    /** Boxes of a power that is prescribed no more. */
    old: prescription ? oldBoxes(record, prescription, record.session.today) : [],
    typed,
    place,
    total: costOf(EYES.flatMap((e) => supplies[e] ?? [])),
    mayOrder: may(record.session.viewer.roles, 'orders'),
    closed: record.visit.closedAt !== null,
  };
}
export type Supply = ReturnType<typeof useSupply>;
