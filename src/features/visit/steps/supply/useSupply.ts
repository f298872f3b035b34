import { useEffect, useRef, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, eyeSupply, inForce, isAnswered, may, type Eye, type EyeSupply } from '@/core';
import { useDraft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { costOf, packsTyped, sourceOf } from './model';

/** A supplier's answer is told as it comes; where nothing can be heard, the page looks for it. */
const LOOK_EVERY_MS = 10_000;

/** The prescription that is ordered under, the boxes for each eye, and the order. */
export function useSupply() {
  const t = useTranslations('supply');
  const { record, run, refresh } = useVisit();
  const draft = useDraft('supply');
  const requestKey = useRef<string | null>(null);
  const held = inForce(record.prescriptions);
  const prescription = held.find((p) => p.purpose === draft.body.purpose) ?? held[0] ?? null;
  const orders = prescription ? record.orders.filter((o) => o.prescriptionId === prescription.id) : [];
  const waiting = orders.some((o) => !isAnswered(o));
  useEffect(() => {
    if (!waiting) return undefined;
    const timer = setInterval(() => void refresh(), LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [waiting, refresh]);

  const typed = (e: Eye): number | null => packsTyped(draft.body[`${e}Packs`]);
  const source = sourceOf(record);
  const supplyOf = (e: Eye): EyeSupply | null => prescription && eyeSupply(source, prescription, e, typed(e));
  const supplies: Readonly<Record<Eye, EyeSupply | null>> = { right: supplyOf('right'), left: supplyOf('left') };
  const place = async (event?: FormEvent): Promise<void> => {
    event?.preventDefault();
    if (!prescription) return;
    // One key for this intention: pressed twice, or sent again after an outage, it is one order.
    requestKey.current ??= crypto.randomUUID();
    const packs = (e: Eye): number => (supplies[e] ? (typed(e) ?? supplies[e].proposed) : 0);
    const form = { requestKey: requestKey.current, prescriptionId: prescription.id, rightPacks: packs('right'), leftPacks: packs('left') };
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
    order: orders[0] ?? null,
    supplies,
    typed,
    place,
    total: costOf(EYES.flatMap((e) => supplies[e] ?? [])),
    mayOrder: may(record.session.viewer.roles, 'orders'),
    closed: record.visit.closedAt !== null,
  };
}
export type Supply = ReturnType<typeof useSupply>;
