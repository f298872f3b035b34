import type { Order, OrderState } from './order';
import type { Prescription } from './prescription';
import type { Eye } from '../units';
import type { WearerFile } from './wearerFile';

/** The order in force for an eye: the newest under this prescription that was not refused. */
export function orderOf(file: Pick<WearerFile, 'orders'>, prescription: Prescription, eye: Eye): Order | null {
  return (
    file.orders.find((o) => o.prescriptionId === prescription.id && o.lines.some((l) => l.eye === eye) && !o.events.some((e) => e.state === 'refused')) ?? null
  );
}

/**
 * Newest state of an order.
 * @example stateOf({events: []}) → 'placed'
 */
export const stateOf = (order: Pick<Order, 'events'>): OrderState => order.events.at(-1)?.state ?? 'placed';
/** Has the supplier answered? */
export const isAnswered = (order: Pick<Order, 'events'>): boolean =>
  order.events.some((e) => e.state === 'acknowledged' || e.state === 'backordered' || e.state === 'refused');
