import type { Eye } from '../units';
import type { Order, OrderReceiptRow } from './order';

/** How far the boxes of one eye of an order have come. */
export interface Boxes {
  readonly ordered: number;
  /** Boxes that came. */
  readonly received: number;
  /** Receipts that lie here and wait for the wearer. */
  readonly here: readonly OrderReceiptRow[];
  readonly handedOver: number;
}

/** Where the boxes of an eye are; null when the order has none for it. */
export function boxesOf(order: Pick<Order, 'lines' | 'receipts'>, eye: Eye): Boxes | null {
  const line = order.lines.find((l) => l.eye === eye);
  if (!line) return null;
  const receipts = order.receipts.filter((r) => r.orderLineId === line.id);
  const packs = (of: readonly OrderReceiptRow[]): number => of.reduce((sum, r) => sum + r.packs, 0);
  return {
    ordered: line.packs,
    received: packs(receipts),
    here: receipts.filter((r) => !r.handedOver),
    handedOver: packs(receipts.filter((r) => r.handedOver)),
  };
}
