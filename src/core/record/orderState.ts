import { boxesOf } from './boxes';
import type { Order, OrderState } from './order';
import type { Prescription } from './prescription';
import type { Eye } from '../units';
import type { WearerFile } from './wearerFile';

/** Is this order still to come for this eye: neither refused nor handed over to the last box? */
const isOpen = (order: Order, eye: Eye): boolean => {
  const boxes = boxesOf(order, eye);
  return boxes !== null && boxes.handedOver < boxes.ordered && !order.events.some((e) => e.state === 'refused');
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
/** Has the supplier answered, in words or in boxes? */
export const isAnswered = (order: Pick<Order, 'events'>): boolean =>
  order.events.some((e) => e.state === 'acknowledged' || e.state === 'backordered' || e.state === 'refused' || e.state === 'received');
