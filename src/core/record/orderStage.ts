import type { OrderState, ShipmentLine } from './order';
import { ends } from './orderState';

/**
 * Where an order stands, from how many of its boxes came and left, whatever the order in which that was told: what a supplier says
 * late of boxes that lie here already changes nothing.
 */
export type OrderStage = Exclude<OrderState, 'received' | 'shipped'> | 'partlyShipped' | 'shipped' | 'partlyReceived' | 'received' | 'handedOver';

/** States that say nothing of where the boxes are. */
const ASIDE: readonly OrderState[] = ['shipped', 'received', 'cancelRefused'];

/** What of an order says where it stands. */
export interface OrderSums {
  readonly events: readonly { readonly state: OrderState }[];
  readonly lines: readonly { readonly packs: number }[];
  readonly receipts: readonly { readonly packs: number; readonly handedOver: boolean }[];
  readonly shipped: readonly Pick<ShipmentLine, 'packs' | 'faults'>[];
}

/** Where an order stands: see `OrderStage`. @example stageOf({events: [{state: "placed"}], lines: [{packs: 1}], receipts: [], shipped: []}) → "placed" */
export function stageOf(order: OrderSums): OrderStage {
  const sum = (packs: readonly number[]): number => packs.reduce((a, b) => a + b, 0);
  const ordered = sum(order.lines.map((l) => l.packs));
  const received = sum(order.receipts.map((r) => r.packs));
  if (received > 0 && order.receipts.every((r) => r.handedOver) && (received >= ordered || ends(order.events))) return 'handedOver';
  if (received >= ordered) return 'received';
  const newest = order.events.findLast((e) => !ASIDE.includes(e.state))?.state ?? 'placed';
  if (newest === 'cancelled' || newest === 'refused' || newest === 'cancelAsked') return newest;
  if (newest === 'delivered' || newest === 'arrived' || newest === 'notArrived') return newest;
  if (received > 0) return 'partlyReceived';
  const shipped = sum(order.shipped.filter((s) => !s.faults.includes('notOrdered')).map((s) => s.packs));
  if (shipped > 0) return shipped >= ordered ? 'shipped' : 'partlyShipped';
  return newest;
}
