import { boxesOf } from './boxes';
import type { Order, OrderState } from './order';
import type { Prescription } from './prescription';
import type { Eye } from '../units';
import type { WearerFile } from './wearerFile';

/** Is this the story of an order of which nothing more will come? */
export const ends = (events: readonly { readonly state: OrderState }[]): boolean => events.some((e) => e.state === 'refused' || e.state === 'cancelled');

/** Will nothing more come of an order: refused by its supplier, or cancelled? What came before is here all the same. */
export const isEnded = (order: Pick<Order, 'events'>): boolean => ends(order.events);

/** Is this order still to come for this eye, or does some of it lie here: not ended before anything came, nor handed over to the last box? */
const isOpen = (order: Order, eye: Eye): boolean => {
  const boxes = boxesOf(order, eye);
  if (boxes === null || boxes.handedOver >= boxes.ordered) return false;
  return !isEnded(order) || boxes.here.length > 0;
};

/** The order that an eye waits for: the newest under this prescription that was neither refused nor wholly handed over. */
export function orderOf(file: Pick<WearerFile, 'orders'>, prescription: Prescription, eye: Eye): Order | null {
  return file.orders.find((o) => o.prescriptionId === prescription.id && isOpen(o, eye)) ?? null;
}

/**
 * Newest state of an order.
 * @example stateOf({events: []}) → 'placed'
 */
export const stateOf = (order: Pick<Order, 'events'>): OrderState => order.events.at(-1)?.state ?? 'placed';
/** States that only an answer, boxes or a cancellation bring. */
const ANSWERS: readonly OrderState[] = ['acknowledged', 'backordered', 'refused', 'shipped', 'delayed', 'delivered', 'received', 'cancelled'];
/** Has the supplier answered, in words or in boxes, or is nothing awaited of it any more? */
export const isAnswered = (order: Pick<Order, 'events'>): boolean => order.events.some((e) => ANSWERS.includes(e.state));

/** Boxes of an order that are neither here nor given up. */
export const isAwaited = (order: Pick<Order, 'events' | 'lines' | 'receipts'>): boolean =>
  !isEnded(order) && order.lines.some((l) => order.receipts.reduce((n, r) => (r.orderLineId === l.id ? n + r.packs : n), 0) < l.packs);

/** Did the wearer say that a parcel which was sent straight to them is there? Nobody here has seen it. */
export const arrivedOn = (order: Pick<Order, 'events' | 'deliverTo'>): string | null =>
  order.deliverTo === 'practice'
    ? null
    : order.events.findLast((e) => e.state === 'arrived' || e.state === 'notArrived')?.state === 'arrived'
      ? (order.events.findLast((e) => e.state === 'arrived')?.at ?? null)
      : null;
